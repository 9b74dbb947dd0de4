import { sceneGraph, withMaskList, type LuminosityMask, type MaskListRef, type PictureSource, type ToneCurve } from '@welkinar/core'
import { produce } from 'immer'
import { changeMask, maskChange } from '../../../scene/sceneStore'
import { PictureChoices } from '../../pictures/PictureChoices'
import { useSource } from '../../../scene/openSceneContext'

interface QuickChoicesProps {
  readonly list: MaskListRef
  readonly mask: LuminosityMask
}

const rows: readonly { readonly curve: ToneCurve; readonly label: string }[] = [
  { curve: 'darks', label: 'Shadows' },
  { curve: 'mids', label: 'Midtones' },
  { curve: 'brights', label: 'Highlights' },
]
/** From wide to tight. */
const widths: readonly { readonly steepness: number; readonly label: string }[] = [
  { steepness: -3, label: 'widest' },
  { steepness: -1, label: 'wide' },
  { steepness: 0, label: 'plain' },
  { steepness: 1, label: 'tight' },
  { steepness: 3, label: 'tightest' },
]

/** Shadows, midtones and highlights, each from wide to tight, as pictures of the mask. */
export function QuickChoices({ list, mask }: QuickChoicesProps) {
  const source = useSource()
  const choices = rows.flatMap(({ curve, label }) =>
    widths.map(({ steepness, label: width }) => {
      const words = `${label}, ${width}`
      const edit = (target: LuminosityMask) => void Object.assign(target, { curve, steepness, free: null })
      return {
        words,
        node: maskNode(source, list, mask, edit),
        change: maskChange(list, mask, edit),
        choose: () => changeMask(list, mask, `Mask: ${words}`, edit),
      }
    }),
  )
  return (
    <PictureChoices
      photo={source.photo}
      label="Quick choices"
      choices={choices}
      columns={widths.length}
      chosen={
        rows.findIndex(({ curve }) => curve === mask.curve) * widths.length +
        widths.findIndex(({ steepness }) => steepness === mask.steepness)
      }
      width={54}
      height={36}
    />
  )
}

/** The mask by itself as it would be after an edit. */
function maskNode(source: PictureSource, list: MaskListRef, mask: LuminosityMask, edit: (mask: LuminosityMask) => void) {
  const edited = produce(mask, edit)
  const tried = withMaskList(source, list, () => ({ masks: [edited], hold: 100 }))
  return sceneGraph(tried, { kind: 'masks', of: list, maskId: mask.id })
}
