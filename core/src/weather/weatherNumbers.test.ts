import { describe, expect, it } from 'vitest'
import { starTemperature, starsBrighterThan, fluxRatio, trailDegrees } from '../astronomy/stars'
import { chromaticityOf, colourOfTemperature, temperatureOf } from '../colour/temperature'
import { blurDisc, blurDiscPixels, pinpointSeconds, streakPixels } from '../optics/lens'
import { dropDensity, dropSlope, dropSpeed, dropsPerCubicMetre, rainExtinction, rainInWords, rateOf } from './rainDrops'
import { flakeDensity, flakesPerCubicMetre, flakeSlope } from './snowFlakes'

describe('rain', () => {
  // Gunn and Kinzer 1949 (from memory).
  it.each([
    [1, 4.03],
    [2, 6.49],
    [3, 8.06],
    [4, 8.83],
    [5, 9.09],
  ])('a drop of %s mm falls at %s m/s', (diameter, speed) => {
    expect(Math.abs(dropSpeed(diameter) / speed - 1)).toBeLessThan(0.03)
  })

  it('the smallest drops do not rise', () => {
    for (const d of [0, 0.05, 0.1, 0.11]) expect(dropSpeed(d)).toBeGreaterThanOrEqual(0)
  })

  // Marshall and Palmer 1948 (from memory): the law itself gives back 1.05-1.18 R with these speeds.
  it.each([
    [1, 1.18],
    [25, 1.13],
    [100, 1.05],
  ])('at %s mm/h the law of the paper gives back %s times the rate', (rate, factor) => {
    const law = (d: number) => 8000 * Math.exp(-4.1 * rate ** -0.21 * d)
    expect(rateOf(law) / rate).toBeCloseTo(factor, 1)
  })

  it.each([0.2, 1, 5, 25, 70, 150])('a sample volume at %s mm/h rains that much within 5 %%', (rate) => {
    expect(Math.abs(rateOf(dropDensity(rate)) / rate - 1)).toBeLessThan(0.05)
    // Drops drawn from the law one by one, in a cubic metre that the mean says how many are in.
    let state = 12345
    const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296
    const smallest = 0.11
    const count = 200000
    let water = 0
    for (let i = 0; i < count; i++) {
      const d = smallest - Math.log(1 - random()) / dropSlope(rate)
      water += (Math.PI / 6) * d ** 3 * dropSpeed(d)
    }
    const fallen = 0.0036 * (water / count) * dropsPerCubicMetre(rate, smallest)
    expect(Math.abs(fallen / rate - 1)).toBeLessThan(0.05)
  })

  it('the number of drops is the integral of their density', () => {
    for (const [rate, from] of [
      [2, 0.5],
      [40, 1.5],
    ] as const) {
      let sum = 0
      for (let d = from; d < 12; d += 0.001) sum += dropDensity(rate)(d + 0.0005) * 0.001
      expect(dropsPerCubicMetre(rate, from) / sum).toBeCloseTo(1, 2)
    }
  })

  it('no rain is no drops; a cloudburst is finite', () => {
    expect(dropsPerCubicMetre(0, 0.5)).toBe(0)
    expect(dropDensity(0)(1)).toBe(0)
    expect(rainExtinction(0)).toBe(0)
    expect(rainExtinction(500)).toBeGreaterThan(rainExtinction(50))
    expect(rainExtinction(500)).toBeLessThan(0.04)
  })

  it('is called what forecasts call it (common practice, no source)', () => {
    expect([0, 0.2, 1, 5, 20, 100].map(rainInWords)).toEqual([
      'no rain',
      'drizzle',
      'light rain',
      'moderate rain',
      'heavy rain',
      'violent rain',
    ])
  })
})

describe('snow', () => {
  // Gunn and Marshall 1958 (from memory).
  it.each([0.3, 1, 2.5])('at %s mm/h of water has the numbers of the law', (rate) => {
    expect(flakeSlope(rate)).toBeCloseTo(2.55 * rate ** -0.48, 10)
    expect(flakeDensity(rate)(0.7)).toBeCloseTo(3800 * rate ** -0.87 * Math.exp(-2.55 * rate ** -0.48 * 0.7), 6)
    let sum = 0
    for (let d = 0.2; d < 20; d += 0.001) sum += flakeDensity(rate)(d + 0.0005) * 0.001
    expect(flakesPerCubicMetre(rate, 0.2) / sum).toBeCloseTo(1, 2)
  })

  it('none is none', () => expect(flakesPerCubicMetre(0, 0.1)).toBe(0))
})

describe('lens', () => {
  it('a 1 mm drop, 1/60 s, 50 mm, 4 m makes a streak of the length worked by hand', () => {
    // 4.03 m/s / 60 = 67 mm on the way; at 4 m and 50 mm that is 0.84 mm of a 36 mm frame; of 6000 px: 140 px.
    expect(streakPixels(4.03, 1 / 60, 50, 4, 6000)).toBeCloseTo(((4.03 / 60) * 0.05 * 1000 * 6000) / (4 * 36), 6)
    expect(streakPixels(dropSpeed(1), 1 / 60, 50, 4, 6000)).toBeGreaterThan(136)
    expect(streakPixels(dropSpeed(1), 1 / 60, 50, 4, 6000)).toBeLessThan(143)
  })

  // Thin lens: the disc of the rays that meet at the image of z, cut where s is sharp.
  it.each([
    [50, 2.8, 5, 1],
    [85, 1.8, 12, 3],
    [24, 8, 3, 0.5],
    [50, 4, 4, 9],
  ])('the disc of %s mm at f/%s, focused at %s m, for a point at %s m', (focal, aperture, focus, distance) => {
    const image = (z: number) => 1 / (1 / (focal / 1000) - 1 / z)
    const byRays = ((focal / 1000 / aperture) * Math.abs(image(distance) - image(focus))) / image(distance)
    expect(blurDisc(focal, aperture, focus, distance) / (byRays * 1000)).toBeCloseTo(1, 6)
    expect(blurDiscPixels(focal, aperture, focus, distance, 3600)).toBeCloseTo(byRays * 1000 * 100, 4)
    expect(blurDisc(focal, aperture, focus, focus)).toBe(0)
  })

  it('focused nearer than it can, a lens still gives a number', () => {
    expect(Number.isFinite(blurDisc(200, 2.8, 0.05, 3))).toBe(true)
    expect(Number.isFinite(blurDisc(1, 1, 0, 0))).toBe(true)
  })

  // Common practice, no source.
  it.each([
    [20, 25],
    [50, 10],
    [100, 5],
  ])('stars stay points at %s mm up to %s s', (focal, seconds) => expect(pinpointSeconds(focal)).toBe(seconds))
})

describe('stars', () => {
  it('a magnitude is a factor of 2.512, five are 100 (Pogson 1856)', () => {
    expect(fluxRatio(1, 2)).toBeCloseTo(2.512, 3)
    expect(fluxRatio(0, 5)).toBeCloseTo(100, 9)
  })

  // Yale Bright Star Catalogue (from memory).
  it('numbers grow by 2.5 to 3.5 a magnitude, to some 5000 brighter than the sixth', () => {
    for (const m of [1, 3, 5]) {
      const growth = starsBrighterThan(m + 1) / starsBrighterThan(m)
      expect(growth).toBeGreaterThan(2.5)
      expect(growth).toBeLessThan(3.5)
    }
    expect(starsBrighterThan(6)).toBe(5000)
  })

  // Ballesteros 2012 (from memory).
  it('a colour index of 0.65 is a sun of about 5770 K', () => {
    expect(Math.abs(starTemperature(0.65) - 5770)).toBeLessThan(40)
    expect(starTemperature(-0.3)).toBeGreaterThan(15000)
    expect(starTemperature(1.8)).toBeLessThan(3500)
  })

  it('the sky turns 15.041° in an hour', () => expect(trailDegrees(60)).toBeCloseTo(15.041, 6))
})

describe('colour temperature', () => {
  // CIE 15 (from memory): illuminants A, D50, D65.
  it.each([
    [2856, 0.4476, 0.4074],
    [5003, 0.3457, 0.3585],
    [6504, 0.3127, 0.329],
  ])('%s K lies at %s, %s', (kelvin, x, y) => {
    expect(chromaticityOf(kelvin)[0]).toBeCloseTo(x, 3)
    expect(chromaticityOf(kelvin)[1]).toBeCloseTo(y, 3)
  })

  // McCamy 1992.
  it.each([2200, 2856, 4300, 5003, 6504, 9500])('%s K comes back within 2 %%', (kelvin) => {
    expect(Math.abs(temperatureOf(chromaticityOf(kelvin)) / kelvin - 1)).toBeLessThan(0.02)
  })

  it('warm is red, daylight white, the sky blue; without end it is defined', () => {
    expect(colourOfTemperature(2000)[0]).toBeCloseTo(1, 9)
    expect(colourOfTemperature(2000)[2]).toBeLessThan(0.4)
    colourOfTemperature(6504).forEach((v) => expect(v).toBeGreaterThan(0.98))
    expect(colourOfTemperature(15000)[2]).toBeCloseTo(1, 9)
    for (const kelvin of [0, 1e9]) colourOfTemperature(kelvin).forEach((v) => expect(Number.isFinite(v)).toBe(true))
  })
})
