import { create } from 'zustand'
import { showProblem } from '../common/notices'
import { database } from '../storage/database'
import { strokeInWords } from './strokes'

/** The strokes of what can be done by one key, by the id of the command. The first one is shown; those behind it do the same on other keyboards. */
const usual: Readonly<Record<string, readonly string[]>> = {
  undo: ['mod+z'],
  redo: ['mod+shift+z', 'mod+y'],
  steps: ['shift+h'],
  correct: ['e'],
  commands: ['mod+k'],
  keys: ['?'],
  export: ['mod+e'],
  trials: ['shift+t'],
  recipes: ['shift+r'],
  'keep-state': ['c'],
  'trial-next': ['right'],
  'trial-before': ['left'],
  fit: ['w'],
  one: ['q'],
  in: ['+', '='],
  out: ['-', '_'],
  surround: ['u'],
  split: ['s'],
  against: ['shift+s'],
  play: ['p'],
  mask: ['k'],
  switch: ['o'],
  farther: ['<'],
  nearer: ['>'],
  reflect: ['shift+w'],
  remove: ['shift+delete'],
  'mix-next': ['m'],
  'mix-before': ['shift+m'],
  'brush-smaller': ['j'],
  'brush-larger': ['l'],
  eraser: ['r'],
  'brush-turn': ['z'],
  scene: ['g'],
  photo: ['f'],
  watch: ['x'],
  clipped: ['d'],
  mirror: ['i'],
  blink: ['shift+b'],
  'effects-here': ['shift+i'],
  panel: ['h'],
  line: ['y'],
  'tool-off': ['escape'],
  'tool-done': ['enter'],
  'tool-back': ['escape', 'backspace'],
  'hold-before': ['b'],
  'hold-without': ['v'],
  'hold-unmasked': ['n'],
  'hold-more': ['t'],
  'hold-move': ['space'],
  'shape-left': ['left'],
  'shape-right': ['right'],
  'shape-up': ['up'],
  'shape-down': ['down'],
  'shape-smaller': ['shift+left', 'shift+down'],
  'shape-larger': ['shift+right', 'shift+up'],
  'shape-ring': ['a'],
}

/** What is in force only while a tool is used: these may have the keys of others, and go before them. */
const ofTools = [
  ...['tool-done', 'tool-back', 'hold-move'],
  ...['shape-left', 'shape-right', 'shape-up', 'shape-down', 'shape-smaller', 'shape-larger', 'shape-ring'],
]

interface Keymap {
  /** What this person has put in the place of the usual strokes; null where there is to be none. */
  readonly own: Readonly<Record<string, string | null>>
}

const SETTING = 'keys'

export const useKeymap = create<Keymap>()(() => ({ own: {} }))

/** Reads what this person has changed. */
export async function loadKeymap(): Promise<void> {
  const kept = (await database.settings.get(SETTING))?.value
  if (typeof kept !== 'object' || kept === null) return
  const sound = Object.entries(kept).filter(([, stroke]) => stroke === null || typeof stroke === 'string')
  useKeymap.setState({ own: Object.fromEntries(sound) as Keymap['own'] })
}

/** The strokes of a command as they are now. */
export function strokesOf(id: string, { own }: Keymap = useKeymap.getState()): readonly string[] {
  const changed = own[id]
  if (changed === null) return []
  return changed === undefined ? (usual[id] ?? []) : [changed]
}

/** The stroke of a command as people read it; nothing if it has none. */
export function useStrokeInWords(id: string): string | undefined {
  return useKeymap((state) => {
    const [first] = strokesOf(id, state)
    return first === undefined ? undefined : strokeInWords(first)
  })
}

/** A hint with the key behind it. */
export function useHint(words: string, id: string): string {
  const stroke = useStrokeInWords(id)
  return stroke ? `${words} (${stroke})` : words
}

/** The command that has a stroke now and would lose it to another. */
export function ownerOf(stroke: string, taker: string): string | undefined {
  const isOfTools = ofTools.includes(taker)
  return Object.keys(usual).find((id) => id !== taker && ofTools.includes(id) === isOfTools && strokesOf(id).includes(stroke))
}

/** The stroke that a command has as long as nobody changes it. */
export function usualStrokeOf(id: string): string | undefined {
  return usual[id]?.[0]
}

/** Whether this person has changed the stroke of a command. */
export function isChanged(id: string): boolean {
  return id in useKeymap.getState().own
}

/** Gives a command another stroke, and takes it from the one that had it; null for none, undefined for the usual one. */
export function giveStroke(id: string, stroke: string | null | undefined): void {
  const own: Record<string, string | null> = { ...useKeymap.getState().own }
  const wanted = stroke === undefined ? usualStrokeOf(id) : stroke
  const before = wanted === null || wanted === undefined ? undefined : ownerOf(wanted, id)
  if (before !== undefined) own[before] = null
  if (stroke === undefined) delete own[id]
  else own[id] = stroke
  useKeymap.setState({ own })
  database.settings.put({ name: SETTING, value: own }).catch((error: unknown) => showProblem(error, 'Keeping the key'))
}
