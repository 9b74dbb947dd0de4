import { arrayMove, verticalListSortingStrategy } from '@dnd-kit/sortable'
import Box from '@mui/material/Box'
import { maskList, type Mask, type MaskListRef } from '@welkinar/core'
import { DragOrder } from '../../controls/DragOrder'
import { maskWords } from './whereSummary'
import { changeMaskList } from '../../../scene/sceneStore'
import { MaskRow } from './MaskRow'
import { useSource } from '../../../scene/openSceneContext'

interface MaskListProps {
  readonly list: MaskListRef
  readonly chosen: Mask | undefined
}

/** The masks from top to bottom; dragged into another order by their grips. */
export function MaskList({ list, chosen }: MaskListProps) {
  const source = useSource()
  const masks = maskList(source, list)?.masks ?? []
  const nameOf = (id: string) => {
    const mask = masks.find((one) => one.id === id)
    return mask ? maskWords(mask, source) : 'the list'
  }
  return (
    <DragOrder
      ids={masks.map(({ id }) => id)}
      strategy={verticalListSortingStrategy}
      nameOf={nameOf}
      onMove={(id, over) => moveMask(list, id, over)}
    >
      <Box role="list" aria-label="Masks">
        {masks.map((mask, index) => (
          <MaskRow key={mask.id} list={list} mask={mask} index={index} chosen={mask === chosen} />
        ))}
      </Box>
    </DragOrder>
  )
}

/** Moves a mask to where another one stands. */
function moveMask(ref: MaskListRef, id: string, over: string): void {
  changeMaskList(ref, 'Move mask', (list) => {
    const at = (wanted: string): number => list.masks.findIndex((mask) => mask.id === wanted)
    list.masks = arrayMove(list.masks, at(id), at(over))
  })
}
