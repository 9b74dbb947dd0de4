import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { database } from '../storage/database'
import { giveStroke, isChanged, loadKeymap, ownerOf, strokesOf, useKeymap } from './keymap'

beforeEach(async () => {
  useKeymap.setState({ own: {} })
  await database.settings.clear()
})

describe('the keymap', () => {
  it('takes a stroke from the command that had it, and gives back what is usual', () => {
    expect(ownerOf('m', 'split')).toBe('mix-next')
    giveStroke('split', 'm')
    expect([strokesOf('split'), strokesOf('mix-next')]).toEqual([['m'], []])
    giveStroke('mix-next', undefined)
    expect([strokesOf('split'), strokesOf('mix-next'), isChanged('mix-next')]).toEqual([[], ['m'], false])
  })

  it('lets tools share keys with the view: what is in force with one goes first', () => {
    expect(ownerOf('escape', 'tool-back')).toBeUndefined()
    giveStroke('tool-back', 'x')
    giveStroke('tool-back', undefined)
    expect(strokesOf('tool-off')).toEqual(['escape'])
    expect(strokesOf('tool-back')).toEqual(['escape', 'backspace'])
  })

  it('is there after a reload; what is kept and is no keymap is left alone', async () => {
    giveStroke('split', '8')
    await vi.waitFor(async () => expect((await database.settings.get('keys'))?.value).toEqual({ split: '8' }))
    useKeymap.setState({ own: {} })
    await loadKeymap()
    expect(strokesOf('split')).toEqual(['8'])
    await database.settings.put({ name: 'keys', value: { split: 7, undo: null } })
    await loadKeymap()
    expect([strokesOf('split'), strokesOf('undo')]).toEqual([['s'], []])
  })

  it('gives no stroke to two commands of the same scope', () => {
    const ids = [
      'undo',
      'redo',
      'fit',
      'one',
      'in',
      'out',
      'split',
      'photo',
      'scene',
      'watch',
      'tool-off',
      'hold-before',
      'keys',
      'commands',
    ]
    expect(ids.flatMap((id) => strokesOf(id).map((stroke) => ownerOf(stroke, id))).filter(Boolean)).toEqual([])
  })
})
