import { describe, expect, it } from 'vitest'
import { numberIn, numberText } from './numberText'

describe('numbers in their fields', () => {
  it.each([
    [1 / 60, { step: 0.001, unit: 's', written: 'fraction' }, '1/60\u2009s'],
    [0.5, { step: 0.001, unit: 's', written: 'fraction' }, '0.5\u2009s'],
    [30, { step: 0.001, unit: 's', written: 'fraction' }, '30.0\u2009s'],
    [5.6, { step: 0.1, unit: '', written: 'aperture' }, 'f/5.6'],
    [8, { step: 0.1, unit: '', written: 'aperture' }, 'f/8'],
    [-12, { step: 1, unit: '%' }, '−12\u2009%'],
    [12.5, { step: 1, unit: 'px' }, '12.5\u2009px'],
    [90, { step: 0.5, unit: '°' }, '90.0°'],
    [2345.678, { step: 0.1, unit: 'px' }, '2346\u2009px'],
  ] as const)('%f with %j is written %s', (value, words, text) => expect(numberText(value, words)).toBe(text))

  it.each([
    ['1/60', 1 / 60],
    [' 1 / 250 s', 1 / 250],
    ['5.6', 5.6],
    ['0,5 s', 0.5],
    ['−12 %', -12],
    ['.5', 0.5],
    ['12px', 12],
    ['8 mm/h', 8],
    ['', NaN],
    ['a dozen', NaN],
    ['1/0', Infinity],
    ['3 4', NaN],
    // Only where it is one.
    ['f/5.6', NaN],
  ])('“%s” is read as %f', (text, value) => expect(numberIn(text)).toBe(value))

  it.each([
    ['f/5.6', 5.6],
    ['F 8', 8],
    ['f11', 11],
    ['5.6', 5.6],
    ['1/60', 1 / 60],
  ])('“%s” is the aperture %f', (text, value) => expect(numberIn(text, 'aperture')).toBe(value))
})
