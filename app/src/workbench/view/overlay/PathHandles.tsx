import type { Effect, GlowLineControls, OutlineCorner } from '@welkinar/core'
import { changeEffect } from '../../../scene/sceneStore'
import type { ViewPort } from '../viewPort'
import { OutlineHandles } from './OutlineHandles'

type Paths = GlowLineControls['pattern']['paths']

export function changePaths(effect: Effect, label: string, change: (paths: Paths) => void, gesture?: string): void {
  changeEffect(effect.id, label, ({ controls }) => change((controls.pattern as GlowLineControls['pattern']).paths), gesture)
}

export function pathsOf({ kind, controls }: Effect): Paths {
  return kind === 'glowLine' ? (controls.pattern as GlowLineControls['pattern']).paths : []
}

/** Puts a drawn line beside those that an effect has. */
export function addPath(effect: Effect, corners: OutlineCorner[]): void {
  changePaths(effect, 'Draw a line', (paths) => void paths.push(corners))
}

/** Corners and curve handles of the lines of an effect. */
export function PathHandles({ port, effect }: { readonly port: ViewPort; readonly effect: Effect }) {
  return pathsOf(effect).map((corners, index) => (
    <OutlineHandles
      key={index}
      port={port}
      corners={corners}
      name={`line ${index + 1}`}
      closed={false}
      onEdit={(label, change, gesture) =>
        changePaths(
          effect,
          label,
          (paths) => {
            const path = paths[index]
            if (path) change(path)
            if (path && path.length < 2) paths.splice(index, 1)
          },
          gesture,
        )
      }
    />
  ))
}
