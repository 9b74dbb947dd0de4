import { changeKind, type EffectOf } from '../../../scene/sceneStore'
import { Handle } from '../../view/overlay/Handle'
import { TapSurface } from '../../view/overlay/TapSurface'
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

/** The glints that were placed on the photo. */
export function GlintHandles({ port, effect }: EffectHandleProps<'sparkles'>) {
  return placedGlints(effect)
    .slice(0, MOST_HANDLES)
    .map((place, index) => {
      const remove = () => changeGlints(effect.id, 'Remove a glint', (places) => void places.splice(index, 1))
      return (
        <Handle
          key={index}
          port={port}
          at={place}
          look="side"
          label={`Glint ${index + 1}`}
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
    <TapSurface port={port} onTap={(at) => changeGlints(effect.id, 'Place a glint', (places) => void places.push({ ...at, size: 100 }))} />
  )
}
