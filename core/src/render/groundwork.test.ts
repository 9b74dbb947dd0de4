import { beforeAll, describe, expect, it } from 'vitest'
import { compareColours, reduceInLinearLight } from '../../test-support/colourDifference'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, randomNumbers, renderAll, renderFresh, samplePixels } from '../../test-support/pictures'
import { newEffect } from '../effects/newEffect'
import type { Effect } from '../effects/registry'
import type { Kernels } from '../graph/operation'
import { newMask } from '../masks/newMask'
import { findPatch } from '../measure/findPatch'
import { frameOf } from '../model/frame'
import { noGroundwork, type Groundwork, type Repair } from '../model/groundwork'
import { noMarks } from '../model/marks'
import { photoNode } from '../operations/sources/photo/photo'
import { gridAt, regionOnGrid } from '../planes/grid'
import { framedGraph, frameOfSource } from './framedGraph'
import { startingTone } from './groundworkNode'
import { sceneGraph } from './sceneGraph'

// What is done to the photo before all effects, against pictures whose truth is known.

let kernels: Kernels
beforeAll(async () => void (kernels = await loadKernels()))

type Tone = (x: number, y: number) => readonly [number, number, number]

/** A picture by its tones, sRGB-encoded codes, as 8-bit RGBA. */
function drawn(width: number, height: number, tone: Tone): Uint8ClampedArray {
  const pixels = new Uint8ClampedArray(width * height * 4)
  for (let i = 0; i < width * height; i++) pixels.set([...tone(i % width, Math.floor(i / width)), 255], 4 * i)
  return pixels
}

function rendered(pixels: Uint8ClampedArray, size: { width: number; height: number }, groundwork: Partial<Groundwork>): Uint8ClampedArray {
  const photo = photoFrom(kernels, 'p', size.width, size.height, pixels)
  const evaluator = evaluatorFor(kernels, photo)
  const source = { photo: { id: 'p', ...size }, groundwork: { ...noGroundwork, ...groundwork }, effects: [] }
  const found = renderAll(evaluator, sceneGraph(source), size).pixels
  evaluator.dropPhoto('p')
  return found
}

/** Peak signal-to-noise ratio of pictures of 8 bits, dB, over the pixels for which `where` holds. */
function psnr(a: ArrayLike<number>, b: ArrayLike<number>, where: (i: number) => boolean = () => true): number {
  let [sum, count] = [0, 0]
  for (let i = 0; i < a.length / 4; i++) {
    if (!where(i)) continue
    for (let k = 0; k < 3; k++) sum += (a[4 * i + k]! - b[4 * i + k]!) ** 2
    count += 3
  }
  return 10 * Math.log10((255 * 255) / (sum / count))
}

describe('noise', () => {
  const size = { width: 320, height: 240 }
  /** Sky with stars of a pixel and of a few, hills with a hard edge, a wall with fine stripes. */
  const night: Tone = (x, y) => {
    const star = x % 40 === 20 && y % 30 === 15 && y < 120 ? 200 : (x - 61) ** 2 + (y - 52) ** 2 < 4 ? 150 : 0
    if (y < 120 + 20 * Math.sin(x / 40)) return [30 + y / 6 + star, 36 + y / 5 + star, 60 + y / 4 + star]
    return x < 160 ? [46, 40, 30] : [120 + 30 * Math.sin(x / 3), 110 + 30 * Math.sin(x / 3), 100]
  }
  const truth = drawn(size.width, size.height, night)

  /** With independent normal noise on each channel (Box and Muller 1958). */
  function noisy(sigma: number): Uint8ClampedArray {
    const random = randomNumbers(5)
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    return Uint8ClampedArray.from(truth, (code, i) => (i % 4 === 3 ? 255 : code + sigma * normal()))
  }

  it('is taken out by 4 dB and more at σ 15 codes; stars keep 90 % of their light, and edges stay', () => {
    const before = noisy(15)
    // 49 %: the standard deviation of 15 codes, of the 0.12 that 100 % stands for.
    const after = rendered(before, size, { noise: { luminance: 49, colour: 49 } })
    expect(psnr(after, truth) - psnr(before, truth)).toBeGreaterThan(4)
    const lumaAt = (pixels: ArrayLike<number>, i: number): number =>
      0.2126 * pixels[4 * i]! + 0.7152 * pixels[4 * i + 1]! + 0.0722 * pixels[4 * i + 2]!
    const stars: number[] = []
    for (let y = 15; y < 90; y += 30) for (let x = 20; x < size.width; x += 40) stars.push(y * size.width + x)
    const over = (pixels: ArrayLike<number>): number =>
      stars.reduce((sum, i) => sum + lumaAt(pixels, i) - lumaAt(pixels, i + 8), 0) / stars.length
    expect(over(after) / over(truth)).toBeGreaterThan(0.9)
    // The edge between wall and hill, from one column to the next.
    const edge = (pixels: ArrayLike<number>): number => {
      let sum = 0
      for (let y = 170; y < 230; y++) sum += lumaAt(pixels, y * size.width + 160) - lumaAt(pixels, y * size.width + 159)
      return sum / 60
    }
    expect(edge(after) / edge(truth)).toBeGreaterThan(0.9)
  })

  it('of the colours alone leaves luma as it is', () => {
    const before = noisy(8)
    const after = rendered(before, size, { noise: { luminance: 0, colour: 40 } })
    let most = 0
    for (let i = 0; i < size.width * size.height; i++) {
      const luma = (pixels: ArrayLike<number>): number =>
        0.2126 * pixels[4 * i]! + 0.7152 * pixels[4 * i + 1]! + 0.0722 * pixels[4 * i + 2]!
      // Where a channel would leave 0 to 255 it is cut.
      if ([0, 1, 2].every((k) => after[4 * i + k]! > 0 && after[4 * i + k]! < 255))
        most = Math.max(most, Math.abs(luma(after) - luma(before)))
    }
    expect(most).toBeLessThan(1.1)
    expect(psnr(after, truth)).toBeGreaterThan(psnr(before, truth) + 1)
  })
})

describe('a mended spot', () => {
  const size = { width: 400, height: 300 }
  const spot = { x: 201, y: 149, radius: 14 }
  const textures: Record<string, Tone> = {
    'a sky that gets lighter': (x, y) => [90 + y / 4, 120 + y / 5 + x / 40, 190 - x / 30],
    'ripples over a slope': (x, y) => {
      const wave = 10 * Math.sin(x / 2.9) * Math.cos(y / 4.1)
      return [100 + x / 8 + wave, 96 + y / 7 + wave, 80 + wave]
    },
    bricks: (x, y) => {
      const joint = y % 24 < 2 || (x + (Math.floor(y / 24) % 2) * 20) % 40 < 2
      return joint ? [170, 165, 160] : [150 + x / 40, 82, 60]
    },
    grain: (x, y) => {
      const hash = Math.sin(x * 12.9898 + y * 78.233) * 43758.5453
      const grain = 12 * (hash - Math.floor(hash) - 0.5)
      return [120 + grain, 118 + grain, 110 + grain + x / 20]
    },
  }

  it.each(Object.keys(textures))('in %s comes back by 28 dB, with no seam', (name) => {
    const truth = drawn(size.width, size.height, textures[name]!)
    const broken = drawn(size.width, size.height, (x, y) =>
      Math.hypot(x + 0.5 - spot.x, y + 0.5 - spot.y) < 0.7 * spot.radius ? [20, 18, 24] : textures[name]!(x, y),
    )
    const photo = photoFrom(kernels, 'p', size.width, size.height, broken)
    const found = findPatch(evaluatorFor(kernels, photo), photoNode('p'), size, spot.x, spot.y, spot.radius)!
    const repair: Repair = { id: 'r', ...spot, fromX: found.x, fromY: found.y, soft: 25, keeps: 'nothing' }
    const after = rendered(broken, size, { repairs: [repair] })
    const far = (i: number): number => Math.hypot((i % size.width) + 0.5 - spot.x, Math.floor(i / size.width) + 0.5 - spot.y)
    expect(psnr(after, truth, (i) => far(i) < spot.radius)).toBeGreaterThan(28)
    // Steps from pixel to pixel at the rim against those farther out, means of 9 px across.
    const steepness = (from: number, to: number): number => {
      let [sum, count] = [0, 0]
      for (let i = 0; i < size.width * size.height; i++) {
        if (far(i) < from || far(i) > to) continue
        sum += Math.abs(after[4 * i + 1]! - after[4 * (i + 1) + 1]!) + Math.abs(after[4 * i + 1]! - after[4 * (i + size.width) + 1]!)
        count += 2
      }
      return sum / count
    }
    expect(steepness(0.65 * spot.radius, 1.1 * spot.radius)).toBeLessThan(1.25 * steepness(1.3 * spot.radius, 2.5 * spot.radius) + 0.6)
    // All else is as it was, but for the dither.
    expect(psnr(after, broken, (i) => far(i) > spot.radius + 1)).toBeGreaterThan(50)
  })

  it('that keeps its texture loses only its tone', () => {
    const grain = textures['grain']!
    const truth = drawn(size.width, size.height, grain)
    // A speck on the sensor: darker by a quarter in the middle, softly.
    const shaded = drawn(size.width, size.height, (x, y) => {
      const shade = 1 - 0.25 * Math.exp(-((x + 0.5 - spot.x) ** 2 + (y + 0.5 - spot.y) ** 2) / 60)
      return grain(x, y).map((code) => code * shade) as unknown as readonly [number, number, number]
    })
    const repair: Repair = { id: 'r', ...spot, radius: 22, fromX: 0, fromY: 0, soft: 25, keeps: 'texture' }
    const after = rendered(shaded, size, { repairs: [repair] })
    const inside = (i: number): boolean => Math.hypot((i % size.width) + 0.5 - spot.x, Math.floor(i / size.width) + 0.5 - spot.y) < 12
    expect(psnr(after, truth, inside)).toBeGreaterThan(psnr(shaded, truth, inside) + 6)
    expect(psnr(after, truth, inside)).toBeGreaterThan(34)
  })

  it('finds nothing where the picture has no room', () => {
    const photo = photoFrom(kernels, 'p', 40, 30, samplePixels(40, 30))
    expect(findPatch(evaluatorFor(kernels, photo), photoNode('p'), { width: 40, height: 30 }, 20, 15, 14)).toBeUndefined()
  })
})

describe('what is shown of a photo', () => {
  const size = { width: 600, height: 400 }

  it('of a turned picture is what the same picture, drawn turned, shows', () => {
    const turn = 7
    const radians = (turn * Math.PI) / 180
    // Smooth enough for the cubic; a place of the turned picture shows the place that is turned back.
    const tone: Tone = (x, y) => [128 + 60 * Math.sin(x / 9), 128 + 60 * Math.cos(y / 11), 128 + 50 * Math.sin((x + y) / 14)]
    const crop = { x: 120, y: 80, width: 300, height: 200, turn }
    const [cx, cy] = [270, 180]
    const truth = drawn(crop.width, crop.height, (u, v) => {
      const [dx, dy] = [u + crop.x + 0.5 - cx, v + crop.y + 0.5 - cy]
      const x = cx + dx * Math.cos(radians) - dy * Math.sin(radians)
      const y = cy + dx * Math.sin(radians) + dy * Math.cos(radians)
      return tone(x - 0.5, y - 0.5)
    })
    const photo = photoFrom(kernels, 'p', size.width, size.height, drawn(size.width, size.height, tone))
    const source = { photo: { id: 'p', ...size }, groundwork: { ...noGroundwork, crop }, effects: [] }
    const found = renderAll(evaluatorFor(kernels, photo), framedGraph(source), size, 1, 4096, frameOfSource(source))
    expect([found.width, found.height]).toEqual([300, 200])
    expect(psnr(found.pixels, truth)).toBeGreaterThan(44)
  })

  it('has its vignette and its frame mask about its own middle, upright', () => {
    const grey = drawn(size.width, size.height, () => [128, 128, 128])
    const crop = { x: 260, y: 40, width: 300, height: 200, turn: -6 }
    const photo = photoFrom(kernels, 'p', size.width, size.height, grey)
    const vignette = newEffect(size, { kind: 'vignette', id: 'v', frame: frameOf(size, crop) })
    const light = newEffect(size, { kind: 'rain', id: 'r' }) as Effect
    const framed: Effect = {
      ...light,
      on: false,
      where: { hold: 100, masks: [newMask(size, { kind: 'frame', id: 'm', join: 'add', marks: noMarks })] },
    }
    const source = { photo: { id: 'p', ...size }, groundwork: { ...noGroundwork, crop }, effects: [framed, vignette] }
    for (const look of [{ kind: 'result' }, { kind: 'masks', of: { owner: 'r', list: 'where' } }] as const) {
      const evaluator = evaluatorFor(kernels, photo)
      const { pixels, width, height } = renderAll(evaluator, framedGraph(source, look), size, 1, 4096, frameOf(size, crop))
      const at = (x: number, y: number): number => pixels[4 * (y * width + x) + 1]!
      for (const [x, y] of [
        [4, 6],
        [30, 100],
        [80, 20],
      ] as const) {
        const four = [at(x, y), at(width - 1 - x, y), at(x, height - 1 - y), at(width - 1 - x, height - 1 - y)]
        expect(Math.max(...four) - Math.min(...four), `${look.kind} at ${x}, ${y}`).toBeLessThan(4)
      }
      expect(at(150, 100)).toBeGreaterThan(at(1, 1))
    }
  })

  it('lets rain fall at its own angle, whatever the photo is turned by', () => {
    const black = drawn(size.width, size.height, () => [0, 0, 0])
    const photo = photoFrom(kernels, 'p', size.width, size.height, black)
    const rain = newEffect(size, { kind: 'rain', look: 'driving-rain', id: 'r' })
    Object.assign(rain.controls.shape, { angle: 70, windVariation: 0, length: 40, turn: 0 })
    Object.assign(rain.controls.pattern, { density: 1, layers: 1, dropSize: 1.2 })
    rain.where = { masks: [], hold: 100 }
    /** The main direction of the streaks: of the structure tensor's smaller eigenvalue (Bigün and Granlund 1987), degrees counter-clockwise. */
    const direction = (turn: number): number => {
      const crop = { x: 100, y: 60, width: 400, height: 280, turn }
      const source = { photo: { id: 'p', ...size }, groundwork: { ...noGroundwork, crop }, effects: [rain] }
      const { pixels, width, height } = renderAll(evaluatorFor(kernels, photo), framedGraph(source), size, 1, 4096, frameOf(size, crop))
      let [xx, xy, yy] = [0, 0, 0]
      const at = (x: number, y: number): number => pixels[4 * (y * width + x) + 1]!
      for (let y = 1; y < height - 1; y++) {
        for (let x = 1; x < width - 1; x++) {
          const [dx, dy] = [at(x + 1, y) - at(x - 1, y), at(x, y + 1) - at(x, y - 1)]
          xx += dx * dx
          xy += dx * dy
          yy += dy * dy
        }
      }
      const across = (0.5 * Math.atan2(2 * xy, xx - yy) * 180) / Math.PI
      return (((90 - across) % 180) + 180) % 180
    }
    const upright = direction(0)
    expect(Math.abs(direction(12) - upright)).toBeLessThan(3)
    expect(Math.abs(direction(-12) - upright)).toBeLessThan(3)
  })
})

describe('the contract with groundwork', () => {
  const size = { width: 1200, height: 800 }
  const tone = startingTone(size)
  tone.pattern.exposure = 0.4
  tone.shape.warmth = 20
  tone.shape.broad = 20
  const repair = { soft: 25, radius: 40, keeps: 'nothing' } as const
  const groundwork: Groundwork = {
    // Borders that reduced pixels have too.
    crop: { x: 152, y: 88, width: 896, height: 600, turn: 3.3 },
    noise: { luminance: 15, colour: 20 },
    repairs: [
      { id: 'a', ...repair, x: 400, y: 300, fromX: 520, fromY: 330 },
      // What it is mended from has been mended itself; and one that keeps its texture.
      { id: 'b', ...repair, x: 520, y: 330, fromX: 640, fromY: 350 },
      { id: 'c', ...repair, x: 700, y: 500, fromX: 0, fromY: 0, keeps: 'texture' },
    ],
    tone,
  }
  const effects = (['haze', 'rain', 'softFocus', 'vignette', 'grain'] as const).map((kind) => newEffect(size, { kind, id: kind }))

  it('a preview is the reduced export, and any tiles give identical bytes', () => {
    const photo = photoFrom(kernels, 'sample', size.width, size.height, samplePixels(size.width, size.height))
    const source = { photo: { id: 'sample', ...size }, groundwork, effects, amount: 80 }
    const frame = frameOfSource(source)
    const node = framedGraph(source)
    const evaluator = evaluatorFor(kernels, photo)
    const full = renderAll(evaluator, node, size, 1, 512, frame)
    for (const factor of [2, 4]) {
      const rect = regionOnGrid(frame, gridAt(size, 1 / factor))
      const reduced = renderAll(evaluator, node, size, 1 / factor, 4096, frame)
      expect([rect.width, rect.height]).toEqual([reduced.width, reduced.height])
      const found = compareColours(reduceInLinearLight(full, factor), reduced)
      // Noise of one pixel, which the sample is full of, is softened a little more by turning a reduced picture than by reducing a turned one.
      expect(found.mean, `mean at 1/${factor}`).toBeLessThan(1.3)
      expect(found.percentile99, `99th percentile at 1/${factor}`).toBeLessThan(4.5)
    }
    evaluator.dropPhoto('sample')
    for (const scale of [1, 0.37]) {
      const region = { x: 340, y: 230, width: 420, height: 300 }
      const whole = renderFresh(kernels, [photo], node, size, scale, 4096, region)
      for (const tile of [67, 256]) {
        const tiled = renderFresh(kernels, [photo], node, size, scale, tile, region)
        expect(Buffer.compare(Buffer.from(whole.pixels), Buffer.from(tiled.pixels)), `tile ${tile}, scale ${scale}`).toBe(0)
      }
    }
  })
})
