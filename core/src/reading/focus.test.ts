import { describe, expect, it } from 'vitest'
import { randomNumbers } from '../../test-support/pictures'
import { focusEdgesOf } from './focusEdges'
import { readScene } from './readScene'
import { smallPhotoOf } from './smallPhoto'
import { allAtOnce } from './steps'
import { wetGround } from './wetGround'

const fine = { width: 1000, height: 660 }
const small = { width: 250, height: 165 }

/** A step from dark to light at x = 500, as a Gaussian of some px makes it; in linear light. */
function step(sigma: number): Float32Array {
  return Float32Array.from({ length: fine.width * fine.height }, (_, i) => {
    const t = ((i % fine.width) - 499.5) / (sigma * Math.SQRT2)
    return (0.3 + 0.2 * erf(t)) ** 2
  })
}

/** Abramowitz and Stegun 7.1.26. */
function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x))
  const y = 1 - ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x)
  return Math.sign(x) * y
}

const total = (plane: Float32Array): number => plane.reduce((sum, value) => sum + value, 0)

describe('edges in and out of focus', () => {
  it.each([
    [0.5, 'sharp'],
    [1, 'sharp'],
    [3.2, 'soft'],
    [5, 'soft'],
  ] as const)('a step blurred by %d px is %s', (sigma, kind) => {
    const plane = step(sigma)
    const edges = allAtOnce(focusEdgesOf({ ...fine, planes: [plane, plane, plane] }, small))
    expect(total(edges[kind])).toBeGreaterThan(1)
    expect(total(edges[kind === 'sharp' ? 'soft' : 'sharp'])).toBeLessThan(0.05 * total(edges[kind]))
  })
})

describe('distances by focus', () => {
  /** A textured thing in the middle, sharp, before soft blobs; the other way round if wanted. */
  const view = (sharpIs: 'thing' | 'all' | 'none') => {
    const random = randomNumbers(3)
    const blobs = Array.from({ length: 60 }, () => ({
      x: random() * fine.width,
      y: random() * fine.height,
      r: 20 + 40 * random(),
      v: 0.25 * (random() - 0.5),
    }))
    const isThing = (x: number, y: number): boolean => x > 400 && x < 600 && y > 220
    const crisp = Float32Array.from({ length: fine.width * fine.height }, () => (random() > 0.5 ? 0.5 : 0.2))
    const light = crisp.map((_, i) => {
      const [x, y] = [i % fine.width, Math.floor(i / fine.width)]
      const grain = crisp[(y - (y % 7)) * fine.width + x - (x % 7)]!
      if (sharpIs === 'all' || (sharpIs === 'thing' && isThing(x, y))) return grain
      // Discs with an edge of some 15 px, as a lens draws lights out of focus.
      return blobs.reduce((sum, { x: u, y: v, r, v: by }) => {
        const far = (x - u) ** 2 + (y - v) ** 2
        return far > (r + 30) ** 2 ? sum : sum + by / (1 + Math.exp((Math.sqrt(far) - r) / 4))
      }, 0.55)
    })
    const linear = light.map((value) => Math.max(0, value) ** 2)
    const mean = Float32Array.from({ length: small.width * small.height }, (_, i) => {
      let sum = 0
      for (let dy = 0; dy < 4; dy++)
        for (let dx = 0; dx < 4; dx++) sum += linear[(4 * Math.floor(i / small.width) + dy) * fine.width + 4 * (i % small.width) + dx]!
      return Math.sqrt(sum / 16)
    })
    const focus = allAtOnce(focusEdgesOf({ ...fine, planes: [linear, linear, linear] }, small))
    return {
      with: readScene({ ...smallPhotoOf(small.width, small.height, [mean, mean, mean]), focus }),
      without: readScene(smallPhotoOf(small.width, small.height, [mean, mean, mean])),
    }
  }
  const codeAt = (codes: Uint8Array, x: number, y: number): number => codes[y * small.width + x]!

  it('puts what is sharp before what is out of focus beside it', () => {
    const { distance } = view('thing').with
    for (const y of [80, 110]) for (const x of [40, 200]) expect(codeAt(distance, x, y)).toBeGreaterThan(codeAt(distance, 125, y) + 40)
    // Its top is as far as its foot.
    expect(Math.abs(codeAt(distance, 125, 75) - codeAt(distance, 125, 140))).toBeLessThan(25)
  })

  it('tells nothing where all is sharp, or nothing', () => {
    for (const kind of ['all', 'none'] as const) {
      const { with: found, without } = view(kind)
      expect(found.distance).toEqual(without.distance)
    }
  })
})

describe('wet ground', () => {
  const size = { width: 256, height: 170 }
  const lamps = [
    { x: 60, y: 50 },
    { x: 130, y: 42 },
    { x: 205, y: 55 },
  ]
  /** A street at night; under each lamp what `under` gives, by the way down from the lamp and to the side. */
  const street = (under: (down: number, aside: number) => number) => {
    const random = randomNumbers(8)
    const light = Float32Array.from({ length: size.width * size.height }, (_, i) => {
      const [x, y] = [i % size.width, Math.floor(i / size.width)]
      return lamps.reduce(
        (sum, lamp) => sum + 0.8 * Math.exp(-((x - lamp.x) ** 2 + (y - lamp.y) ** 2) / 8) + under(y - lamp.y, x - lamp.x),
        0.12 + 0.02 * random(),
      )
    })
    return smallPhotoOf(size.width, size.height, [light, light, light])
  }

  it('is seen by the streaks under lamps, half the way down to them', () => {
    const found = wetGround(street((down, aside) => 0.3 * Math.exp(-((down - 80) ** 2) / 600 - aside ** 2 / 10)))
    expect(Math.abs(found!.y * size.height - (50 + 40))).toBeLessThan(8)
  })

  it.each([
    ['nothing', () => 0],
    ['a post', (down: number, aside: number) => (down > 0 && down < 70 ? 0.25 * Math.exp(-(aside ** 2) / 6) : 0)],
    ['a pool of light', (down: number, aside: number) => 0.3 * Math.exp(-((down - 80) ** 2) / 60 - aside ** 2 / 900)],
    ['another window', (down: number, aside: number) => 0.5 * Math.exp(-((down - 30) ** 2 + aside ** 2) / 8)],
  ])('is not claimed for %s under each lamp', (_, under) => {
    expect(wetGround(street(under))).toBeUndefined()
  })
})
