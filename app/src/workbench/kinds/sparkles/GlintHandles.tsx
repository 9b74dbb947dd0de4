import { within180 } from '@welkinar/core'
import { changeKind, useScene, type EffectOf } from '../../../scene/sceneStore'
import { angleOf, atAngle, pathThrough } from '../../onPhoto/geometry'
import { GuideLine, Handle } from '../../onPhoto/Handle'
import { TapSurface } from '../../onPhoto/TapSurface'
import type { EffectHandleProps, EffectSurfaceProps } from '../effectInterface'

type Sparkles = EffectOf<'sparkles'>
export type GlintPlace = Sparkles['controls']['pattern']['places'][number]

/** More handles than these would hide the photo; the glints themselves are all drawn. */
const MOST_HANDLES = 60

/** The places of glints that were placed one by one. */
export function placedGlints({ controls: { pattern } }: Sparkles): GlintPlace[] {
  return pattern.by === 'placed' ? pattern.places : []
}

function changeGlints(id: string, label: string, change: (places: GlintPlace[]) => void, gesture?: string): void {
  changeKind('sparkles', id, label, ({ controls }) => change(controls.pattern.places), gesture)
}

/** The glints that were placed on the photo; of the chosen one its size and turn too. */
export function GlintHandles({ port, effect }: EffectHandleProps<'sparkles'>) {
  const chosen = useScene(({ chosenGlint }) => chosenGlint)
  const places = placedGlints(effect)
  const glint = chosen === undefined ? undefined : places[chosen]
  return (
    <>
      {glint && <TipHandle port={port} effect={effect} glint={glint} index={chosen ?? 0} />}
      <Middles port={port} effect={effect} />
    </>
  )
}

interface TipHandleProps extends EffectHandleProps<'sparkles'> {
  readonly glint: GlintPlace
  readonly index: number
}

/** The tip of a glint's first point: how far it lies away is its size, where it lies its turn. */
function TipHandle({ port, effect, glint, index }: TipHandleProps) {
  const { reach, turn } = effect.controls.pattern
  const far = Math.max(reach * (glint.size / 100), LEAST_TIP / port.zoom)
  const tip = atAngle(glint, far, turn + glint.turn)
  return (
    <>
      <GuideLine dashed d={pathThrough(port, [glint, tip])} />
      <Handle
        port={port}
        at={tip}
        look="side"
        label={`Size and turn of glint ${index + 1}`}
        onMove={(to, gesture) =>
          changeGlints(
            effect.id,
            'Size and turn of a glint',
            (places) => {
              const away = Math.hypot(to.x - glint.x, to.y - glint.y)
              const size = Math.round(Math.min(MOST_SIZE, Math.max(1, (100 * away) / reach)))
              Object.assign(places[index] ?? {}, { size, turn: within180(Math.round(angleOf(glint, to) - turn)) })
            },
            gesture,
          )
        }
      />
    </>
  )
}

/** Css px: nearer than this the tip would lie under the middle. */
const LEAST_TIP = 28
const MOST_SIZE = 1000

function Middles({ port, effect }: EffectHandleProps<'sparkles'>) {
  return placedGlints(effect)
    .slice(0, MOST_HANDLES)
    .map((place, index) => {
      const remove = () => changeGlints(effect.id, 'Remove a glint', (places) => void places.splice(index, 1))
      return (
        <Handle
          key={index}
          port={port}
          at={place}
          label={`Glint ${index + 1}`}
          onGrip={(held) => held && useScene.getState().set({ chosenGlint: index })}
          onMove={(to, gesture) =>
            changeGlints(effect.id, 'Move a glint', (places) => void Object.assign(places[index] ?? {}, to), gesture)
          }
          onDoubleClick={remove}
          onRemove={remove}
        />
      )
    })
}

/** Takes taps on the photo: each puts a glint there. */
export function GlintTool({ port, effect, tool }: EffectSurfaceProps<'sparkles'>) {
  if (tool.kind !== 'glints') return null
  return (
    <TapSurface
      port={port}
      onTap={(at) => changeGlints(effect.id, 'Place a glint', (places) => void places.push({ ...at, size: 100, turn: 0 }))}
    />
  )
}
