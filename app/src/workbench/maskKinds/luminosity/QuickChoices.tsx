import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { sceneGraph, withMaskList, type LuminosityMask, type MaskListRef, type PictureSource, type ToneCurve } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { produce } from 'immer'
import { useRef, type KeyboardEvent } from 'react'
import { changeMask, maskChange, useScene } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import { LookPicture } from '../../LookPicture'

interface QuickChoicesProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly list: MaskListRef
  readonly mask: LuminosityMask
}

const rows: readonly { readonly curve: ToneCurve; readonly label: string }[] = [
  { curve: 'brights', label: 'Brights' },
  { curve: 'mids', label: 'Mids' },
  { curve: 'darks', label: 'Darks' },
]
/** From wide to tight. */
const widths: readonly { readonly steepness: number; readonly label: string }[] = [
  { steepness: -3, label: 'widest' },
  { steepness: -1, label: 'wide' },
  { steepness: 0, label: 'plain' },
  { steepness: 1, label: 'tight' },
  { steepness: 3, label: 'tightest' },
]

/** Brights, mids and darks, each from wide to tight, as pictures of the mask. The picture follows the one pointed at or stepped to. */
export function QuickChoices({ pool, source, list, mask }: QuickChoicesProps) {
  const grid = useRef<HTMLDivElement>(null)
  const choices = rows.flatMap(({ curve, label }) => widths.map((width) => ({ curve, ...width, words: `${label}, ${width.label}` })))
  const edit = (index: number) => (target: LuminosityMask) => {
    const { curve, steepness } = choices[index] ?? { curve: target.curve, steepness: target.steepness }
    Object.assign(target, { curve, steepness, free: null })
  }
  const tryOut = (index: number) => useScene.getState().try(maskChange(list, mask, edit(index)))
  const onKeyDown = (event: KeyboardEvent, index: number) => {
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: widths.length, ArrowUp: -widths.length }[event.key]
    if (!by) return
    event.preventDefault()
    event.stopPropagation()
    grid.current?.querySelectorAll('button')[Math.min(choices.length - 1, Math.max(0, index + by))]?.focus()
  }
  const chosen = choices.findIndex(({ curve, steepness }) => curve === mask.curve && steepness === mask.steepness)
  return (
    <Box
      ref={grid}
      role="group"
      aria-label="Quick choices; arrow keys step through them"
      onMouseLeave={() => useScene.getState().try(undefined)}
      onBlur={() => useScene.getState().try(undefined)}
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(5, 1fr)', gap: '3px' }}
    >
      {choices.map(({ words }, index) => (
        <ButtonBase
          key={words}
          aria-label={words}
          aria-pressed={index === chosen}
          tabIndex={index === Math.max(0, chosen) ? 0 : -1}
          onFocus={() => tryOut(index)}
          onMouseEnter={() => tryOut(index)}
          onKeyDown={(event) => onKeyDown(event, index)}
          onClick={() => changeMask(list, mask, `Mask: ${words}`, edit(index))}
          sx={{ display: 'block', outline: index === chosen ? `2px solid ${ink.accent}` : 'none', outlineOffset: 1 }}
        >
          <LookPicture pool={pool} node={maskNode(source, list, mask, edit(index))} photo={source.photo} width={54} height={36} label="" />
        </ButtonBase>
      ))}
    </Box>
  )
}

/** The mask by itself as it would be after an edit. */
function maskNode(source: PictureSource, list: MaskListRef, mask: LuminosityMask, edit: (mask: LuminosityMask) => void) {
  const edited = produce(mask, edit)
  const tried = withMaskList(source, list, () => ({ masks: [edited], hold: 100 }))
  return sceneGraph(tried, { kind: 'masks', of: list, maskId: mask.id })
}
