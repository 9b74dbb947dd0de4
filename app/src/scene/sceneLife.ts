/** Why the scene cannot be changed here. */
export type ReadOnly = 'another tab' | 'gone' | 'newer' | 'no room'

/** Why what is on the screen is not stored. */
type SaveTrouble = 'no room' | 'failed' | 'conflict'

/** What an open scene goes through. While it is opening, open, saving or in trouble it can be changed. */
export type SceneLife =
  | { readonly is: 'closed' }
  | { readonly is: 'opening' }
  | { readonly is: 'reading only'; readonly why: ReadOnly }
  /** All of it is stored. */
  | { readonly is: 'open' }
  | { readonly is: 'saving' }
  | { readonly is: 'trouble'; readonly why: SaveTrouble }

type Phase = SceneLife['is']

/** What may follow what. A scene that is closed is opened by another opening, never by the one that closed it. */
const following: Readonly<Record<Phase, readonly Phase[]>> = {
  closed: [],
  opening: ['open', 'saving', 'reading only', 'closed'],
  'reading only': ['opening', 'reading only', 'closed'],
  open: ['open', 'saving', 'trouble', 'reading only', 'closed'],
  saving: ['open', 'saving', 'trouble', 'reading only', 'closed'],
  // It shows until something has been stored again.
  trouble: ['open', 'saving', 'trouble', 'reading only', 'closed'],
}

/** The life after a step; as before where that step cannot follow, because what makes it comes too late. */
export function lived(now: SceneLife, next: SceneLife): SceneLife {
  return following[now.is].includes(next.is) ? next : now
}

/** Why the scene cannot be changed, if it cannot. */
export function readOnlyBy(life: SceneLife): ReadOnly | undefined {
  return life.is === 'reading only' ? life.why : undefined
}
