import type { Announcements } from '@dnd-kit/core'

/** What is said while something is dragged by keys. @param nameOf its name, or that of the place it is over */
export function dragWords(nameOf: (id: string) => string): { readonly announcements: Announcements } {
  const name = (id: string | number | undefined): string => nameOf(String(id))
  return {
    announcements: {
      onDragStart: ({ active }) => `${name(active.id)} is held. Arrow keys move it, Space puts it down, Escape leaves it where it was.`,
      onDragOver: ({ active, over }) => (over && over.id !== active.id ? `${name(active.id)} is over ${name(over.id)}.` : undefined),
      onDragEnd: ({ active, over }) => `${name(active.id)} was put down${over && over.id !== active.id ? ` at ${name(over.id)}` : ''}.`,
      onDragCancel: ({ active }) => `${name(active.id)} stays where it was.`,
    },
  }
}
