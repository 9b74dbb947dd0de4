import { effectDefinitions } from '@welkinar/core'
import { describe, expect, it } from 'vitest'
import { offers, search } from './offers'
import { wordsOfKind, wordsOfLook } from './tradeWords'

// What photographers and retouchers type: common practice, no source.

describe('the finder', () => {
  it.each([
    ['clarity', 'adjust'],
    ['structure', 'sharpen'],
    ['bokeh', 'customField'],
    ['burn', 'adjust'],
    ['dodge', 'lightPool'],
    ['zoom blur', 'rays'],
    ['dreamy', 'softFocus'],
    ['star trails', 'stars'],
    ['milky way', 'stars'],
    ['crepuscular rays', 'rays'],
    ['mist', 'fog'],
    ['LUT', 'colourTable'],
    ['split toning', 'colourBalance'],
    ['S-curve', 'curves'],
    ['removing haze', 'haze'],
    ['lens flare', 'sunburst'],
    ['color grading', 'colourBalance'],
    ['chromatic aberration', 'fringe'],
    ['sky replacement', 'overlay'],
    ['film grain', 'grain'],
    ['high pass', 'sharpen'],
    ['vignetting', 'vignette'],
  ] as const)('“%s” leads to %s', (typed, kind) => {
    expect(search(typed).map((offer) => offer.kind)).toContain(kind)
  })

  it('puts what is called so first, and what the trade calls one look before kinds that do something like it', () => {
    expect(search('fog')[0]!.label).toBe('Fog')
    expect(search('star trails').map(({ look }) => look)).toEqual(['star-trails'])
    expect(search('zoom blur')[0]!.look).toBe('rush-of-the-picture')
    expect(search('milky way')[0]!.look).toBe('band-of-stars')
    expect(search('no such thing')).toEqual([])
  })

  it('knows a word for each kind that can be added, and no look that is not there', () => {
    const kinds = effectDefinitions.filter(({ madeFromEffect }) => !madeFromEffect).map(({ kind }) => kind)
    expect(kinds.filter((kind) => !wordsOfKind[kind])).toEqual([])
    const looks = new Set(offers.map(({ look }) => look))
    expect(Object.keys(wordsOfLook).filter((look) => !looks.has(look))).toEqual([])
  })
})
