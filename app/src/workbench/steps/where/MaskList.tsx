import {
  closestCenter,
  DndContext,
  KeyboardCode,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import { arrayMove, SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable'
import Box from '@mui/material/Box'
import { maskList, type Mask, type MaskListRef } from '@welkinar/core'
import { dragWords } from '../../controls/dragWords'
import { maskWords } from './whereSummary'
import { changeMaskList } from '../../../scene/sceneStore'
import { MaskRow } from './MaskRow'
import { useSource } from '../../../scene/openSceneContext'

interface MaskListProps {
  readonly list: MaskListRef
  readonly chosen: Mask | undefined
}

const keyboardCodes = { start: [KeyboardCode.Space], cancel: [KeyboardCode.Esc], end: [KeyboardCode.Space, KeyboardCode.Enter] }

/** The masks from top to bottom; dragged into another order by their grips. */
export function MaskList({ list, chosen }: MaskListProps) {
  const source = useSource()
  const masks = maskList(source, list)?.masks ?? []
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates, keyboardCodes }),
  )
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) moveMask(list, String(active.id), String(over.id))
  }
  const accessibility = dragWords((id) => {
    const mask = masks.find((one) => one.id === id)
    return mask ? maskWords(mask) : 'the list'
  })
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd} accessibility={accessibility}>
      <SortableContext items={masks.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
        <Box role="list" aria-label="Masks">
          {masks.map((mask, index) => (
            <MaskRow key={mask.id} list={list} mask={mask} index={index} chosen={mask === chosen} />
          ))}
        </Box>
      </SortableContext>
    </DndContext>
  )
}

/** Moves a mask to where another one stands. */
function moveMask(ref: MaskListRef, id: string, over: string): void {
  changeMaskList(ref, 'Move mask', (list) => {
    const at = (wanted: string): number => list.masks.findIndex((mask) => mask.id === wanted)
    list.masks = arrayMove(list.masks, at(id), at(over))
  })
}
