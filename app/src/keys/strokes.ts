// A stroke is a key with what is held beside it, written as 'mod+shift+z', '+', 'escape', 'shift+delete'. "mod" is the command key of the platform.

const isApple = /Mac|iPhone|iPad/.test(globalThis.navigator?.userAgent ?? '')

/** What of an event says which stroke it is. */
export type KeyEventLike = Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'> &
  Partial<Pick<KeyboardEvent, 'isComposing' | 'getModifierState'>>

/** Keys that only change others. */
const alone = ['Shift', 'Control', 'Alt', 'Meta', 'AltGraph', 'CapsLock', 'Fn', 'NumLock', 'ScrollLock']
/** Keys that have not said yet what they are. */
const unready = ['Dead', 'Process', 'Unidentified', 'Compose']

/**
 * The stroke of an event; nothing while it only holds others or is not finished. A key is what is written on it (`event.key`); where that is no Latin letter, what an American
 * keyboard has at its place (`event.code`). Shift does not count for signs and digits, which some keyboards have on one layer and some on the other.
 */
export function strokeOf(event: KeyEventLike): string | undefined {
  const { key, isComposing } = event
  if (isComposing || alone.includes(key) || unready.includes(key)) return undefined
  const name = nameOf(event)
  const writes = event.getModifierState?.('AltGraph') === true
  const [mod, other] = isApple ? [event.metaKey, event.ctrlKey] : [event.ctrlKey, event.metaKey]
  const held = [
    ...(mod && !writes ? ['mod'] : []),
    ...(other && !writes ? ['other'] : []),
    ...(event.altKey && !writes ? ['alt'] : []),
    ...(event.shiftKey && !isSign(name) ? ['shift'] : []),
  ]
  return [...held, name].join('+')
}

function nameOf({ key, code, altKey }: KeyEventLike): string {
  if (key === ' ') return 'space'
  if ([...key].length > 1) return key.replace(/^Arrow/, '').toLowerCase()
  const isLatin = /^\p{Script=Latin}$/u.test(key)
  const place = /^Key([A-Z])$/.exec(code)?.[1]?.toLowerCase()
  // With Alt some platforms write a sign in the place of a letter.
  if (place && ((/^\p{L}$/u.test(key) && !isLatin) || (altKey && !isLatin))) return place
  return key.toLowerCase()
}

function isSign(name: string): boolean {
  return [...name].length === 1 && !/^\p{L}$/u.test(name)
}

const held: Readonly<Record<string, string>> = isApple
  ? { mod: '⌘', shift: '⇧', alt: '⌥', other: '⌃' }
  : { mod: 'Ctrl', shift: 'Shift', alt: 'Alt', other: 'Win' }
const named: Readonly<Record<string, string>> = {
  ...{ escape: 'Esc', delete: 'Delete', backspace: 'Backspace', enter: 'Enter', space: 'Space', tab: 'Tab' },
  ...{ up: '↑', down: '↓', left: '←', right: '→', '-': '−' },
}

/** A stroke as people read it, with the platform's own sign of the command key. */
export function strokeInWords(stroke: string): string {
  const parts = partsOf(stroke)
  return parts
    .map((part) => held[part] ?? named[part] ?? (part.length > 1 ? part[0]?.toUpperCase() + part.slice(1) : part.toUpperCase()))
    .join(' ')
}

/** "+" is a key too. */
function partsOf(stroke: string): string[] {
  return stroke.endsWith('+') ? [...stroke.slice(0, -1).split('+').filter(Boolean), '+'] : stroke.split('+')
}
