/** Something the Workbench can do, in its menus, its shortcuts and the list of commands. */
export interface Command {
  readonly id: string
  readonly label: string
  /** In the notation of react-hotkeys-hook. */
  readonly keys?: string
  /** How the keys are written for people. */
  readonly keysShown?: string
  readonly enabled?: boolean
  run(): void
}
