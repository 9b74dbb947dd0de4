/** Names presses of arrow keys on one control: those that follow each other closely, or come from a key that is held, are one step for undo. */
export function keysGesture(control: string): string {
  return `${control} keys`
}
