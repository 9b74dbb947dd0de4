import type { OutlineCorner } from '@welkinar/core'
import { changeKind, type EffectOf } from '../../../scene/sceneStore'
import { OutlineHandles } from '../../onPhoto/OutlineHandles'
import { OutlineSurface } from '../../onPhoto/OutlineSurface'
import type { EffectHandleProps, EffectSurfaceProps } from '../effectInterface'

type Paths = EffectOf<'glowLine'>['controls']['pattern']['paths']

export function changePaths(id: string, label: string, change: (paths: Paths) => void, gesture?: string): void {
  changeKind('glowLine', id, label, ({ controls }) => change(controls.pattern.paths), gesture)
}

/** Corners and curve handles of the lines of an effect. */
export function PathHandles({ port, effect }: EffectHandleProps<'glowLine'>) {
  return effect.controls.pattern.paths.map((corners, index) => (
    <OutlineHandles
      key={index}
      port={port}
      corners={corners}
      name={`line ${index + 1}`}
      closed={false}
      onEdit={(label, change, gesture) =>
        changePaths(
          effect.id,
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

/** Takes the pointer while a line is drawn. */
export function PathTool({ port, effect, tool }: EffectSurfaceProps<'glowLine'>) {
  if (tool.kind !== 'path') return null
  const add = (corners: OutlineCorner[]) => changePaths(effect.id, 'Draw a line', (paths) => void paths.push(corners))
  return <OutlineSurface port={port} open onDrawn={add} />
}
