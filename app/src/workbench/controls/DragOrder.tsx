import {
  closestCenter,
  DndContext,
  KeyboardCode,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core'
import { SortableContext, sortableKeyboardCoordinates, type SortingStrategy } from '@dnd-kit/sortable'
import { useMemo, type ReactNode } from 'react'

interface DragOrderProps {
  /** What is dragged, in its order. */
  readonly ids: readonly string[]
  readonly strategy: SortingStrategy
  /** The name of one of them, or of a place among them. */
  nameOf(id: string): string
  /** Moves one to where another stands. */
  onMove(id: string, over: string): void
  readonly children: ReactNode
}

// The same at each step: a context of other settings makes all that is dragged anew.
const pointer = { activationConstraint: { distance: 5 } }
const keyboard = {
  coordinateGetter: sortableKeyboardCoordinates,
  // Enter chooses, so it does not pick up.
  keyboardCodes: { start: [KeyboardCode.Space], cancel: [KeyboardCode.Esc], end: [KeyboardCode.Space, KeyboardCode.Enter] },
}

/** Things whose order is changed by dragging, with pointer or keys. */
export function DragOrder({ ids, strategy, nameOf, onMove, children }: DragOrderProps) {
  const sensors = useSensors(useSensor(PointerSensor, pointer), useSensor(KeyboardSensor, keyboard))
  const names = ids.join('\n')
  // The same list as long as the order is the same: all that is dragged looks at it.
  const items = useMemo(() => names.split('\n'), [names])
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) onMove(String(active.id), String(over.id))
  }
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={{ announcements: announcementsWith(nameOf) }}
    >
      <SortableContext items={items} strategy={strategy}>
        {children}
      </SortableContext>
    </DndContext>
  )
}

/** What is said while something is dragged by keys. */
function announcementsWith(nameOf: (id: string) => string): Announcements {
  const name = (id: string | number | undefined): string => nameOf(String(id))
  return {
    onDragStart: ({ active }) => `${name(active.id)} is held. Arrow keys move it, Space puts it down, Escape leaves it where it was.`,
    onDragOver: ({ active, over }) => (over && over.id !== active.id ? `${name(active.id)} is over ${name(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) => `${name(active.id)} was put down${over && over.id !== active.id ? ` at ${name(over.id)}` : ''}.`,
    onDragCancel: ({ active }) => `${name(active.id)} stays where it was.`,
  }
}
