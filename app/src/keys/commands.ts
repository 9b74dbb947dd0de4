import type { KeyBinding } from './listener'

/** Something the Workbench can do, in its menus, its shortcuts and the list of commands. Its keys stand in the keymap, by its id. */
export interface Command extends Pick<KeyBinding, 'hold' | 'repeats' | 'inTexts'> {
  readonly id: string
  readonly label: string
  readonly enabled?: boolean
  /** Nothing for what lasts as long as its key is down. */
  readonly run?: () => void
}
