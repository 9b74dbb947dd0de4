import { maskSchemaOf, newMask, noMarks, schemaAt, type Mask, type MaskListRef } from '@welkinar/core'
import { SchemaNumber } from './SchemaNumber'
import { changeMask } from '../../scene/sceneStore'
import { useSource } from '../../scene/openSceneContext'
import { TwoColumns } from '../../common/TwoColumns'

interface MaskNumberProps {
  readonly list: MaskListRef
  readonly mask: Mask
  /** Key of the number in the mask. */
  readonly name: string
}

const ofEveryMask = ['feather', 'strength', 'grow', 'edges']

/** One number of a mask; its words, ranges and starting value come from the mask's definition. */
export function MaskNumber({ list, mask, name }: MaskNumberProps) {
  const source = useSource()
  const start = newMask(source.photo, { kind: mask.kind, id: 'start', join: mask.join, marks: source.marks ?? noMarks })
  return (
    <SchemaNumber
      schema={schemaAt(maskSchemaOf(mask.kind), name)}
      value={numberAt(mask, name)}
      start={Number(numberAt(start, name).toFixed(3))}
      onChange={(value, gesture, label) =>
        changeMask(list, mask, `Mask: ${label}`, (target) => void Object.assign(target, { [name]: value }), gesture && `${name} ${gesture}`)
      }
    />
  )
}

/** All numbers that a kind of mask has of its own, or some of them. */
export function MaskNumbers({ names, ...rest }: Omit<MaskNumberProps, 'name'> & { readonly names?: readonly string[] }) {
  const all = Object.keys(maskSchemaOf(rest.mask.kind).shape).filter((key) => !ofEveryMask.includes(key))
  return (
    <TwoColumns>
      {(names ?? all).map((name) => (
        <MaskNumber key={name} {...rest} name={name} />
      ))}
    </TwoColumns>
  )
}

function numberAt(mask: Mask, name: string): number {
  return Number((mask as unknown as Record<string, unknown>)[name])
}
