import { readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import sharp from 'sharp'
import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { photoFrom } from '../../test-support/pictures'
import { everyNth } from '../../test-support/sampled'
import type { Kernels } from '../graph/operation'
import { marksSchema, noMarks } from '../model/marks'
import type { Reading } from '../model/reading'
import { FARTHEST } from '../model/readingMethod'
import { codeOf } from './readDistance'
import { brightestAbove } from './readLight'
import { readPhoto } from './readPhoto'
import { readScene, type ReadScene } from './readScene'
import { smallPhotoOf } from './smallPhoto'

/** A made-up view, red, green, blue in roots of linear light. */
function view(colour: (x: number, y: number, noise: number) => readonly [number, number, number], width = 200, height = 134): ReadScene {
  let state = 5
  const pixels = Array.from({ length: width * height }, (_, i) => {
    state = (Math.imul(state, 1664525) + 1013904223) | 0
    return colour((i % width) + 0.5, Math.floor(i / width) + 0.5, (state >>> 0) / 2 ** 32 - 0.5)
  })
  const channels = [0, 1, 2].map((k) => Float32Array.from(pixels, (pixel) => pixel[k as 0]))
  return readScene(smallPhotoOf(width, height, channels as never))
}

const grey = (v: number) => [v, v, v] as const

describe('reading a made-up view', () => {
  const sea = (level: number, slope: number, light = 0.8, water = 0.45) =>
    view((x, y, noise) => {
      const over = y < level * 134 + slope * (x - 100)
      return grey((over ? light - 0.001 * (134 - y) : water) + (over ? 0.01 : 0.06) * noise)
    })

  it.each([
    [0.5, 0],
    [0.3, 0.05],
    [0.72, -0.08],
  ])('finds a horizon at %d of the height with a slope of %d, and the sky over it', (level, slope) => {
    const { horizon, sky } = sea(level, slope)
    expect(Math.abs(horizon!.y - level)).toBeLessThan(0.02)
    expect(Math.abs(Math.tan((horizon!.turn * Math.PI) / 180) + slope)).toBeLessThan(0.02)
    const part = sky!.reduce((sum, value) => sum + value, 0) / sky!.length
    expect(Math.abs(part - level)).toBeLessThan(0.03)
  })

  it('finds it by night, where the sky is as dark as the water', () => {
    const { horizon } = sea(0.6, 0, 0.2, 0.08)
    expect(Math.abs(horizon!.y - 0.6)).toBeLessThan(0.02)
  })

  it('claims no horizon where there is none: noise, one colour, a slope of hills, upright trunks', () => {
    expect(view((_x, _y, noise) => grey(0.4 + 0.5 * noise)).horizon).toBeUndefined()
    for (const tone of [0, 0.5, 1]) expect(view(() => grey(tone)).horizon, `one colour ${tone}`).toBeUndefined()
    expect(view((x, y, noise) => grey(y < 50 + 25 * Math.sin(x / 18) ? 0.8 : 0.3 + 0.1 * noise)).horizon).toBeUndefined()
    expect(view((x, y, noise) => grey((Math.sin(x / 4) > 0.2 ? 0.1 : 0.35 + 0.001 * y) + 0.1 * noise)).horizon).toBeUndefined()
  })

  it('gives ground the distance of perspective, what stands on it that of its foot, and makes all grow where nothing is known', () => {
    const post = (x: number, y: number) => x > 90 && x < 112 && y > 30 && y < 115
    const { distance } = view((x, y, noise) => (post(x, y) ? [0.5, 0.08, 0.08] : grey((y < 67 ? 0.8 : 0.45) + 0.01 * noise)))
    const at = (x: number, y: number) => distance[y * 200 + x]!
    // Eye height 1.7 m, focal length 28 mm of 36: at d px under the horizon 1.7 × 28 / 36 × 200 / d metres.
    for (const y of [80, 100, 130]) expect(Math.abs(at(20, y) - codeOf((1.7 * (28 / 36) * 200) / (y + 0.5 - 67)))).toBeLessThan(6)
    expect(Math.abs(at(100, 45) - at(100, 110))).toBeLessThan(3)
    expect(Math.abs(at(100, 45) - codeOf((1.7 * (28 / 36) * 200) / (115 - 67)))).toBeLessThan(6)
    expect(at(20, 60)).toBeGreaterThan(at(20, 80))
    const unknown = view((_x, _y, noise) => grey(0.4 + 0.5 * noise)).distance
    const rows = Array.from({ length: 134 }, (_, y) => unknown.subarray(200 * y, 200 * (y + 1)).reduce((sum, code) => sum + code, 0) / 200)
    for (let y = 8; y < 134; y++) {
      // Rows of noise differ a little; those of a few rows do not.
      expect(rows[y - 8]! - rows[y]!).toBeGreaterThan(0)
      expect(Math.abs(rows[y - 1]! - rows[y]!)).toBeLessThan(8)
    }
  })

  it('takes dark trunks to be nearer than the clearing that is seen between them, where neither sky nor horizon is', () => {
    const { distance, sky, horizon } = view((x, y, noise) =>
      x % 25 < 8 ? grey(0.12 + 0.02 * noise) : grey(0.5 + 0.15 * Math.sin(x * 1.9 + y * 1.3) + 0.05 * noise),
    )
    expect([sky, horizon]).toEqual([undefined, undefined])
    const mean = (trunk: boolean) => {
      const codes = [...distance].filter((_, i) => (i % 200) % 25 < 8 === trunk)
      return codes.reduce((sum, code) => sum + code, 0) / codes.length
    }
    expect(mean(true)).toBeLessThan(0.75 * mean(false))
  })

  it('finds the light that stands out, and none in an even sky', () => {
    const sun = (x: number, y: number) => 0.9 * Math.exp(-((x - 130) ** 2 + (y - 40) ** 2) / 200)
    const { light } = view((x, y) => grey(y < 80 ? Math.min(1, 0.4 + sun(x, y)) : 0.15))
    expect(Math.abs(light!.x - 130 / 200)).toBeLessThan(0.03)
    expect(Math.abs(light!.y - 40 / 134)).toBeLessThan(0.03)
    expect(sea(0.5, 0).light).toBeUndefined()
  })

  it('finds what is brightest above where no light stands out, and nothing where it is as bright all over', () => {
    const brightest = (gap: number) => {
      const plane = Float32Array.from({ length: 200 * 134 }, (_, i) => {
        const [x, y] = [i % 200, Math.floor(i / 200)]
        return y > 100 ? 0.9 : Math.abs(x - 60) < 10 && Math.abs(y - 30) < 10 ? gap : 0.2
      })
      return brightestAbove(smallPhotoOf(200, 134, [plane, plane, plane]))
    }
    expect(Math.abs(brightest(0.4)!.x - 60.5 / 200)).toBeLessThan(0.03)
    expect(Math.abs(brightest(0.4)!.y - 30.5 / 134)).toBeLessThan(0.03)
    expect(brightest(0.2)).toBeUndefined()
  })
})

describe('reading what lies beyond the frame, and water', () => {
  const sky = (towards: number) =>
    view((x, y, noise) => {
      const linear = 0.25 * Math.exp(towards * (x / 200 - 0.5)) * (0.6 + (0.4 * y) / 134)
      return y < 80 ? grey(Math.sqrt(linear) + 0.01 * noise) : grey(0.12 + 0.1 * noise)
    })

  it.each([
    [1.4, 1],
    [-1.4, 0],
  ])('a sky whose light grows by e^%d along the photo has its sun beyond that border', (towards, right) => {
    const { light } = sky(towards)
    expect(light!.x > 1).toBe(right === 1)
    expect(light!.x < 0).toBe(right === 0)
    expect(light!.y).toBeLessThan(0.62)
  })

  it('an even sky has none', () => {
    expect(sky(0.2).light).toBeUndefined()
  })

  /** A sky over a dark ground by its light, linear, of places in units of the width from the middle of the upper border. */
  const under = (lightAt: (u: number, down: number) => number) =>
    view((x, y, noise) => (y < 80 ? grey(Math.sqrt(lightAt(x / 200 - 0.5, y / 200)) + 0.01 * noise) : grey(0.12 + 0.1 * noise))).light

  it('a sky that is brightest about one place of the upper border has its sun above', () => {
    const light = under((u, down) => 0.15 + 0.5 * Math.exp(-((u - 0.15) ** 2 + (down + 0.1) ** 2) / 0.08))
    expect(light!.y).toBeLessThan(0)
    expect(light!.x).toBeCloseTo(0.65, 1)
  })

  // CIE standard overcast sky (CIE S 011): (1 + 2 sin of the height) / 3 of the zenith; here to 35° at the upper border.
  it('a grey sky, which is brighter above to all sides, has none', () => {
    expect(under((_u, down) => 0.6 * ((1 + 2 * Math.sin(((0.4 - down) / 0.4) * 0.61)) / 3))).toBeUndefined()
  })

  it('water that mirrors hills tells where the horizon is that they hide', () => {
    const skyline = (x: number) => 14 + 10 * Math.sin(x / 17) + 5 * Math.sin(x / 7 + 1)
    for (const [level, slope] of [
      [0.5, 0],
      [0.42, -0.05],
    ] as const) {
      const { horizon } = view((x, y, noise) => {
        const off = y - (level * 134 + slope * (x - 100))
        const hill = Math.abs(off) < skyline(x)
        return grey((hill ? 0.3 : 0.8) * (off < 0 ? 1 : 0.75) + 0.02 * noise)
      })
      expect(Math.abs(horizon!.y - level)).toBeLessThan(0.02)
      expect(horizon!.turn).toBeCloseTo((-Math.atan(slope) * 180) / Math.PI, 0)
    }
  })

  it('a deck before the sea is no horizon, with the sky seen on below it', () => {
    const posts = (x: number) => x % 40 < 3
    const { horizon } = view((x, y, noise) => {
      const deck = y > 55 && y < 61
      return grey((deck || (posts(x) && y >= 61) ? 0.15 : y < 75 ? 0.8 : 0.6 + 0.05 * Math.sin(y * 1.7)) + 0.02 * noise)
    })
    expect(horizon === undefined || Math.abs(horizon.y - 75 / 134) < 0.02).toBe(true)
  })

  it('under a horizon there is water if its waves lie level, or if it mirrors what stands on it; not if it is grass', () => {
    const waves = view((_x, y, noise) => (y < 60 ? grey(0.85) : [0.3 + 0.04 * Math.sin(y * 1.3), 0.36, 0.42 + 0.02 * noise]))
    const grass = view((_x, y, noise) => (y < 60 ? grey(0.85) : [0.3 + 0.3 * noise, 0.45 + 0.3 * noise, 0.15]))
    // Boats of several heights on a green pond.
    const hull = (x: number, up: number) => Math.abs((x % 40) - 20) < 8 - 0.4 * up && up < 6 + (Math.floor(x / 40) % 3) * 5
    const pond = view((x, y, noise) => {
      const up = Math.abs(y - 67)
      if (hull(x, up)) return y < 67 ? [0.5, 0.1, 0.1] : [0.4, 0.15, 0.1]
      return y < 67 ? grey(0.85 + 0.01 * noise) : [0.3 + 0.02 * noise, 0.5, 0.3]
    })
    expect(waves.water!.y).toBeCloseTo(60 / 134, 1)
    expect(pond.horizon!.y).toBeCloseTo(0.5, 1)
    expect(pond.water).toBeDefined()
    expect(grass.water).toBeUndefined()
  })
})

describe('reading a photo', () => {
  let kernels: Kernels
  beforeAll(async () => {
    kernels = await loadKernels()
  })
  const files = fileURLToPath(new URL('../../../demo/photos/', import.meta.url))
  const known = new Map<string, Promise<{ reading: Reading; height: number }>>()
  /** What is read from a sample photo; each is read once. */
  const readOf = (name: string) => {
    const reading = known.get(name) ?? opened(name).then((photo) => ({ reading: readPhoto(kernels, photo), height: photo.height }))
    known.set(name, reading)
    return reading
  }
  const opened = async (name: string) => {
    const { data, info } = await sharp(`${files}${name}.jpg`).resize(1500).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
    return photoFrom(kernels, name, info.width, info.height, data)
  }

  // The tracer that made these photos writes the distance of every pixel: black is farther than all.
  const skies = [
    ['ferry-quay', 0.85],
    ['headland', 0.85],
    ['moored-skiff', 0.85],
    ['survey-hut', 0.85],
  ] as const
  it.each(everyNth(skies, 2))('finds the sky of %s as its tracer knows it', async (name, least) => {
    const { sky } = (await readOf(name)).reading
    const { width, height, codes } = sky!
    const found = Buffer.from(codes, 'base64')
    const truth = await sharp(`${files}${name}-depth.png`).resize(width, height, { fit: 'fill' }).greyscale().raw().toBuffer()
    let [both, either] = [0, 0]
    found.forEach((code, i) => {
      const known = truth[i]! <= 1
      if (code && known) both++
      if (code || known) either++
    })
    expect(both / either).toBeGreaterThan(least)
  })

  it('claims a horizon only where the tracer has one near', async () => {
    for (const name of ['ferry-quay', 'headland', 'moored-skiff', 'pine-inlet', 'survey-hut']) {
      const { reading, height } = await readOf(name)
      const { horizon } = reading
      const { marks, madeFor } = JSON.parse(await readFile(`${files}${name}.marks.json`, 'utf8')) as {
        marks: { horizon: { y: number } }
        madeFor: { height: number }
      }
      if (horizon) expect(Math.abs(horizon.y / height - marks.horizon.y / madeFor.height), name).toBeLessThan(0.05)
    }
    expect((await readOf('ship-lantern')).reading).toMatchObject({ horizon: null, sky: null })
  })

  it('reads photos of any shape and of one colour, as a valid mark', () => {
    for (const [width, height] of [
      [8, 8],
      [400, 8],
      [8, 400],
      [1200, 200],
      [200, 1200],
    ] as const) {
      for (const tone of [0, 128, 255]) {
        const photo = photoFrom(kernels, 'p', width, height, new Array<number>(width * height * 4).fill(tone))
        const reading = readPhoto(kernels, photo)
        expect(marksSchema.safeParse({ ...noMarks, reading }).success, `${width} × ${height} of ${tone}`).toBe(true)
        expect(reading.horizon).toBeNull()
      }
    }
    expect(codeOf(FARTHEST)).toBe(255)
  })
})
