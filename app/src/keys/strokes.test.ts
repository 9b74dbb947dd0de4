import { describe, expect, it } from 'vitest'
import { strokeInWords, strokeOf, type KeyEventLike } from './strokes'

// What keyboards send (W3C UI Events KeyboardEvent key and code Values): the German, French, American and Russian layouts, from memory.

const none = { ctrlKey: false, metaKey: false, altKey: false, shiftKey: false }
const ctrl = { ...none, ctrlKey: true }
const shift = { ...none, shiftKey: true }

describe('a stroke', () => {
  it.each<[what: string, event: KeyEventLike, stroke: string | undefined]>([
    ['Ctrl Z on an American keyboard', { ...ctrl, key: 'z', code: 'KeyZ' }, 'mod+z'],
    ['Ctrl Z on a German one, where Z and Y are swapped', { ...ctrl, key: 'z', code: 'KeyY' }, 'mod+z'],
    ['Ctrl Z on a French one, where it lies at W', { ...ctrl, key: 'z', code: 'KeyW' }, 'mod+z'],
    ['Ctrl Z on a Russian one', { ...ctrl, key: 'я', code: 'KeyZ' }, 'mod+z'],
    ['Ctrl Shift Z with Caps Lock', { ...ctrl, shiftKey: true, key: 'z', code: 'KeyZ' }, 'mod+shift+z'],
    ['S with Caps Lock', { ...none, key: 'S', code: 'KeyS' }, 's'],
    ['Shift S', { ...shift, key: 'S', code: 'KeyS' }, 'shift+s'],
    ['plus on an American keyboard', { ...shift, key: '+', code: 'Equal' }, '+'],
    ['plus on a German one', { ...none, key: '+', code: 'BracketRight' }, '+'],
    ['a question mark, wherever it is', { ...shift, key: '?', code: 'KeyM' }, '?'],
    ['< on a German keyboard', { ...none, key: '<', code: 'IntlBackslash' }, '<'],
    ['an accented letter is itself', { ...none, key: 'é', code: 'Digit2' }, 'é'],
    ['AltGr writes', { ...ctrl, altKey: true, key: '[', code: 'Digit8', getModifierState: (name) => name === 'AltGraph' }, '['],
    ['Shift Delete', { ...shift, key: 'Delete', code: 'Delete' }, 'shift+delete'],
    ['an arrow', { ...none, key: 'ArrowLeft', code: 'ArrowLeft' }, 'left'],
    ['Space', { ...none, key: ' ', code: 'Space' }, 'space'],
    ['a dead key', { ...none, key: 'Dead', code: 'Equal' }, undefined],
    ['what an input method composes', { ...none, key: 'k', code: 'KeyK', isComposing: true }, undefined],
    ['Shift alone', { ...shift, key: 'Shift', code: 'ShiftLeft' }, undefined],
  ])('of %s', (_, event, stroke) => {
    expect(strokeOf(event)).toBe(stroke)
  })

  it.each([
    ['mod+shift+z', 'Ctrl Shift Z'],
    ['+', '+'],
    ['mod++', 'Ctrl +'],
    ['shift+delete', 'Shift Delete'],
    ['escape', 'Esc'],
  ])('%s is read as %s', (stroke, words) => {
    expect(strokeInWords(stroke)).toBe(words)
  })
})
