import { describe, expect, it } from 'vitest'
import { firstOutput, namesOf } from './outputs'

const today = new Date('2026-03-04T12:00:00Z')
const jpeg = firstOutput
const png = { ...firstOutput, format: 'png' as const }
const small = { ...firstOutput, longSide: 800 }
const smaller = { ...firstOutput, longSide: 800, quality: 60 }

describe('names of the files of a run', () => {
  it.each([
    ['are those of the photos', { photos: ['a.cr2', 'b.c.jpg'] }, ['a.jpg', 'b.c.jpg']],
    ['have the ending of each format', { photos: ['a.jpg'], outputs: [jpeg, png] }, ['a.jpg', 'a.png']],
    ['have the size where two would get one name', { photos: ['a.jpg'], outputs: [jpeg, small] }, ['a.jpg', 'a 800.jpg']],
    [
      'have a number where that is not enough',
      { photos: ['a.jpg'], outputs: [jpeg, small, smaller] },
      ['a.jpg', 'a 800.jpg', 'a 800-2.jpg'],
    ],
    [
      'are kept apart also where only their case, or their folder, differs',
      { photos: ['a.jpg', 'A.png', 'a.jpg'] },
      ['a.jpg', 'A-2.jpg', 'a-3.jpg'],
    ],
    [
      'have the recipe where there are several',
      { photos: ['a.jpg'], recipes: ['Last light', 'Rain / now'] },
      ['a Last light.jpg', 'a Rain now.jpg'],
    ],
    ['follow the pattern', { photos: ['a.jpg'], pattern: '{date} {number} {recipe} of {name}{odd}' }, ['2026-03-04 1 R of a.jpg']],
    ['have numbers of one length', { photos: Array.from({ length: 10 }, (_, i) => `${i}.jpg`), pattern: '{number}' }, ['01.jpg', '02.jpg']],
    ['are never empty, and no paths', { photos: ['a.jpg', '../../b.jpg'], pattern: '' }, ['scene.jpg', 'scene-2.jpg']],
    ['are no longer than a file system takes', { photos: [`${'x'.repeat(300)}.jpg`] }, [`${'x'.repeat(80)}.jpg`]],
    ['keep quotes of another writing, and lose those that no system takes', { photos: ['שלום "«é».jpg'] }, ['שלום «é».jpg']],
  ])('%s', (_, given, wanted) => {
    const { photos, recipes = ['R'], outputs = [jpeg], pattern = '{name}' } = given as Partial<Parameters<typeof namesOf>[0]>
    const names = namesOf({ photos: photos ?? [], recipes, outputs, pattern, today }).flat(2)
    expect(names.slice(0, wanted.length)).toEqual(wanted)
    expect(new Set(names.map((name) => name.toLowerCase())).size).toBe(names.length)
  })
})
