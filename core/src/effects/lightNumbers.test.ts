import { fileURLToPath } from 'node:url'
import sharp from 'sharp'
import { beforeAll, describe, expect, it } from 'vitest'
import { compareColours, reduceInLinearLight } from '../../test-support/colourDifference'
import { effectScene } from '../../test-support/effectScene'
import { loadKernels } from '../../test-support/kernels'
import { maskOf, planeOf } from '../../test-support/masks'
import { evaluatorFor, photoFrom, renderAll, samplePixels } from '../../test-support/pictures'
import type { Kernels } from '../graph/operation'
import { noMarks } from '../model/marks'
import { sceneGraph } from '../render/sceneGraph'
import { newEffect } from './newEffect'
import { definitionOf, effectSchema, type Effect, type EffectKind } from './registry'

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

const [width, height] = [480, 320]
const size = { width, height }

type Change = { pattern?: object; shape?: object; mix?: object; where?: Effect['where']; region?: Effect['region']; colour?: object }

function effectOf(kind: EffectKind, look: string, change: Change = {}, photo = size): Effect {
  const made = newEffect(photo, { kind, look, id: look })
  Object.assign(made.controls.pattern, change.pattern)
  Object.assign(made.controls.shape, change.shape)
  Object.assign(made.mix, change.mix)
  Object.assign(made.colour, change.colour)
  if (change.where) made.where = change.where
  if (change.region !== undefined) made.region = change.region
  return made
}

const everywhere = { masks: [], hold: 100 }

describe('a glow line', () => {
  // The integral of a Gaussian over the width of the line is what a blur leaves of it (common practice, no source): given back, each halo is as bright at the line as it says.
  it.each([
    [2, 10],
    [6, 10],
    [6, 40],
    [40, 10],
  ])('%i px wide has a halo of %i px that is as bright at the line as it says', (lineWidth, middleRadius) => {
    const across = (y: number) => ({ x: y, y: 160, inX: 0, inY: 0, outX: 0, outY: 0 })
    const paths = [[across(-2000), across(2000)]]
    const { controls } = effectOf('glowLine', 'neon-tube', {
      pattern: { paths, width: lineWidth, taper: 0, hardness: 100 },
      shape: { sharp: 0, tight: 0, middle: 30, middleRadius, wide: 0, spill: 0 },
    })
    const { field } = definitionOf('glowLine').contribute(controls, effectScene(size), [1, 1, 1])
    const plane = planeOf(evaluatorFor(kernels), field, size)
    const at = (y: number) => plane[y * width + 240]!
    expect(at(160)).toBeGreaterThan(0.27)
    expect(at(160)).toBeLessThan(0.34)
    if (lineWidth < middleRadius) expect(at(160 + middleRadius) / at(160)).toBeCloseTo(Math.exp(-0.5), 1)
  })
})

describe('aperture', () => {
  // Optics: an even number of blades gives as many spikes, an odd one twice as many. Counted by the angular spectrum of the picture.
  it.each([
    [5, 10],
    [6, 6],
    [7, 14],
    [8, 8],
    [9, 18],
    [11, 22],
  ])('of %i blades makes %i spikes', (blades, spikes) => {
    const { controls } = effectOf('sunburst', 'small-aperture', {
      pattern: { by: 'blades', blades, follows: null, x: 240.3, y: 160.8, reach: 150, thickness: 1.5 },
    })
    const field = planeOf(evaluatorFor(kernels), definitionOf('sunburst').pattern(controls, effectScene(size)), size)
    const steps = 720
    const around = Array.from({ length: steps }, (_, i) => {
      const angle = (2 * Math.PI * i) / steps
      // Mean over some radii, so that no pixel decides.
      const radii = [40, 46, 52, 58, 64]
      return (
        radii.reduce(
          (sum, r) => sum + field[Math.round(160.3 - r * Math.sin(angle)) * width + Math.round(239.8 + r * Math.cos(angle))]!,
          0,
        ) / radii.length
      )
    })
    const powers = Array.from({ length: 30 }, (_, k) => {
      const harmonic = k + 1
      const [c, s] = [Math.cos, Math.sin].map((f) =>
        around.reduce((sum, value, i) => sum + value * f((2 * Math.PI * harmonic * i) / steps), 0),
      )
      return c! * c! + s! * s!
    })
    expect(powers.indexOf(Math.max(...powers)) + 1).toBe(spikes)
  })

  it('draws none for a count of 0, and 360 without trouble', () => {
    for (const count of [0, 360]) {
      const { controls } = effectOf('sunburst', 'sun-between-posts', { pattern: { count, follows: null, x: 240, y: 160, reach: 100 } })
      const field = planeOf(evaluatorFor(kernels), definitionOf('sunburst').pattern(controls, effectScene(size)), size)
      const beside = field[160 * width + 300]!
      const most = field.reduce((a, b) => Math.max(a, b), 0)
      expect(field.every((value) => Number.isFinite(value) && value >= 0 && value <= 1)).toBe(true)
      expect(count === 0 ? beside : most).toSatisfy((value: number) => (count === 0 ? value === 0 : value > 0.3))
    }
  })
})

/** Linear change of encoded codes as sharp makes it, and its blur at full accuracy. */
const exactBlur = { precision: 'float' as const, minAmplitude: 0.001 }
const raw = { raw: { width, height, channels: 3 as const } }

function withoutAlpha(rgba: ArrayLike<number>): Buffer {
  return Buffer.from(Array.from(rgba).filter((_, i) => i % 4 !== 3))
}

/** Greatest difference in codes away from the border, where libvips ends its kernels differently. */
function inside(a: ArrayLike<number>, b: Buffer, margin: number): number {
  let most = 0
  for (let y = margin; y < height - margin; y++)
    for (let x = margin; x < width - margin; x++)
      for (let c = 0; c < 3; c++) most = Math.max(most, Math.abs(a[4 * (y * width + x) + c]! - b[3 * (y * width + x) + c]!))
  return most
}

describe('soft focus', () => {
  const photoOf = (seed: number) => {
    const pixels = samplePixels(width, height, seed)
    return { photo: photoFrom(kernels, 'p', width, height, pixels), rgb: withoutAlpha(pixels) }
  }
  const bare = { shape: { darkening: 0, detail: 0, glow: 100, protectHighlights: 0, protectShadows: 0 }, where: everywhere }

  // The same steps with sharp. Each step there ends in whole codes: one code from the blur, one from the mix, and our own rounding.
  it.each([
    [3, 6, 40],
    [8, 12, 65],
    [21, 4, 100],
  ])('Bloom without contrast on photo %i, %i px at %i %%, is blur and Screen of sharp', async (seed, radius, amount) => {
    const { photo, rgb } = photoOf(seed)
    const one = effectOf('softFocus', 'dream-bloom', { ...bare, pattern: { radius, contrast: 0, brightness: 0 }, mix: { amount } })
    const ours = renderAll(evaluatorFor(kernels, photo), sceneGraph({ photo, effects: [one] }), size)
    const blurred = await sharp(rgb, raw)
      .blur({ sigma: radius, ...exactBlur })
      .raw()
      .toBuffer()
    const screened = await sharp(rgb, raw)
      .composite([{ input: blurred, ...raw, blend: 'screen' }])
      .removeAlpha()
      .raw()
      .toBuffer()
    const wanted = Buffer.from(rgb.map((code, i) => Math.round(code + ((screened[i]! - code) * amount) / 100)))
    expect(inside(ours.pixels, wanted, 4 * radius)).toBeLessThanOrEqual(3)
  })

  it.each([
    [4, 7, 15],
    [9, 10, 20],
  ])('Veil without contrast on photo %i, %i px at %i %%, is blur and a fade of sharp', async (seed, radius, amount) => {
    const { photo, rgb } = photoOf(seed)
    const one = effectOf('softFocus', 'veil', { ...bare, pattern: { radius, contrast: 0, brightness: 0 }, mix: { amount } })
    const ours = renderAll(evaluatorFor(kernels, photo), sceneGraph({ photo, effects: [one] }), size)
    const blurred = await sharp(rgb, raw)
      .blur({ sigma: radius, ...exactBlur })
      .raw()
      .toBuffer()
    const wanted = Buffer.from(rgb.map((code, i) => Math.round(code + ((blurred[i]! - code) * amount) / 100)))
    expect(inside(ours.pixels, wanted, 4 * radius)).toBeLessThanOrEqual(2)
  })

  it('Pair is Multiply and Screen of sharp', async () => {
    const { photo, rgb } = photoOf(5)
    const one = effectOf('softFocus', 'dark-and-light', {
      ...bare,
      pattern: { radius: 9, lightRadius: 5, contrast: 0, brightness: 0 },
      shape: { ...bare.shape, darkening: 100 },
      mix: { amount: 65 },
    })
    const ours = renderAll(evaluatorFor(kernels, photo), sceneGraph({ photo, effects: [one] }), size)
    const copy = (sigma: number) =>
      sharp(rgb, raw)
        .blur({ sigma, ...exactBlur })
        .raw()
        .toBuffer()
    const dark = await sharp(rgb, raw)
      .composite([{ input: await copy(9), ...raw, blend: 'multiply' }])
      .removeAlpha()
      .raw()
      .toBuffer()
    const pair = await sharp(dark, raw)
      .composite([{ input: await copy(5), ...raw, blend: 'screen' }])
      .removeAlpha()
      .raw()
      .toBuffer()
    const wanted = Buffer.from(rgb.map((code, i) => Math.round(code + (pair[i]! - code) * 0.65)))
    // Two blurs and two mixes of sharp, each rounded to a code.
    expect(inside(ours.pixels, wanted, 36)).toBeLessThanOrEqual(3)
  })

  // Common practice, no source: radius ≈ megapixels, 25 px at 24 of them, 10–20 %; Pair 35 px, 65 %; unblur 40 %.
  it.each([
    [6000, 4000, 25],
    [4000, 3000, 12.5],
    [7348, 4899, 37.5],
  ])('a veil on %i × %i has %d px', (w, h, radius) => {
    const { controls, mix } = newEffect({ width: w, height: h }, { kind: 'softFocus', look: 'veil', id: 'a' })
    expect((controls.pattern as { radius: number }).radius).toBeCloseTo(radius, 1)
    expect(mix.amount).toBeGreaterThanOrEqual(10)
    expect(mix.amount).toBeLessThanOrEqual(20)
    const pair = newEffect({ width: 6000, height: 4000 }, { kind: 'softFocus', look: 'dark-and-light', id: 'b' })
    expect((pair.controls.pattern as { radius: number }).radius).toBeCloseTo(35, 6)
    expect(pair.mix.amount).toBe(65)
  })

  // Common practice, no source: hardly a glow at 20 px, a full one from 50 to 100, little gain beyond 300. Measured as what surrounds a lamp gains.
  it('a bloom is hardly a glow at 20 px, full at 50 to 100, and gains little beyond 300', () => {
    const side = { width: 1200, height: 800 }
    const lamp = Array.from({ length: side.width * side.height }, (_, i) => {
      const lit = Math.hypot((i % side.width) - 600, Math.floor(i / side.width) - 400) < 70
      return lit ? [255, 250, 240, 255] : [0, 0, 0, 255]
    }).flat()
    const photo = photoFrom(kernels, 'p', side.width, side.height, lamp)
    const evaluator = evaluatorFor(kernels, photo)
    const lift = (radius: number) => {
      const one = effectOf(
        'softFocus',
        'dream-bloom',
        { ...bare, pattern: { radius, contrast: 0, brightness: 0 }, mix: { amount: 40 } },
        side,
      )
      const { pixels } = renderAll(evaluator, sceneGraph({ photo, effects: [one] }), side, 0.25)
      // A ring of 115 to 190 px about the lamp's middle.
      let [sum, count] = [0, 0]
      for (let i = 0; i < 300 * 200; i++) {
        const r = 4 * Math.hypot((i % 300) - 150, Math.floor(i / 300) - 100)
        if (r < 115 || r > 190) continue
        sum += pixels[4 * i]!
        count++
      }
      return sum / count
    }
    const [at20, at60, at100, at300, at500] = [20, 60, 100, 300, 500].map(lift)
    expect(at20!).toBeLessThan(0.4 * at60!)
    expect(at100!).toBeGreaterThan(0.8 * at60!)
    expect(Math.abs(at500! - at300!)).toBeLessThan(0.2 * Math.max(at60!, at100!))
  })

  it('gives detail back where its masks are open, and only there', () => {
    const { photo } = photoOf(6)
    const left = maskOf(size, 'band', { x: 60, y: 160, turn: 90, width: 200, softness: 4, follows: null })
    const evaluator = evaluatorFor(kernels, photo)
    const draw = (detail: number, region: Effect['region']) =>
      renderAll(
        evaluator,
        sceneGraph({
          photo,
          effects: [effectOf('softFocus', 'veil', { ...bare, shape: { ...bare.shape, detail }, mix: { amount: 60 }, region })],
        }),
        size,
      ).pixels
    const [none, some] = [draw(0, null), draw(80, { masks: [left], hold: 100 })]
    const changed = (from: number, to: number) => {
      let sum = 0
      for (let y = 0; y < height; y++)
        for (let x = from; x < to; x++) sum += Math.abs(some[4 * (y * width + x)]! - none[4 * (y * width + x)]!)
      return sum / ((to - from) * height)
    }
    expect(changed(0, 140)).toBeGreaterThan(1)
    expect(changed(200, 480)).toBeLessThan(0.05)
  })
})

describe('subject glow and glow line', () => {
  const region = {
    masks: [maskOf(size, 'ellipse', { x: 240, y: 160, radiusX: 60, radiusY: 40, turn: 20, softness: 0, follows: null })],
    hold: 100,
  }

  it.each([
    [2, [3, 8, 20]],
    [7, [5, 12, 16]],
  ] as const)('on photo %i with blurs of %j px is that of sharp: white on black, blurred, added up, Screen', async (seed, radii) => {
    const pixels = samplePixels(width, height, seed)
    const photo = photoFrom(kernels, 'p', width, height, pixels)
    const shape = {
      sits: 'over',
      sharp: 40,
      tight: 30,
      middle: 20,
      wide: 30,
      tightRadius: radii[0],
      middleRadius: radii[1],
      wideRadius: radii[2],
      spill: 0,
    }
    const one = effectOf('subjectGlow', 'lit-from-within', {
      shape,
      region,
      where: everywhere,
      mix: { amount: 100 },
      colour: { tint: '#ffffff', ramp: null },
    })
    const evaluator = evaluatorFor(kernels, photo)
    const ours = renderAll(evaluator, sceneGraph({ photo, effects: [one] }), size)
    // The white region as codes, from the mask that the effect reads.
    const white = sceneGraph({ photo, effects: [{ ...one, where: region }] }, { kind: 'step', effectId: one.id, step: 'where' })
    const grey = withoutAlpha(renderAll(evaluator, white, size).pixels)
    const parts = await Promise.all(
      [0, ...radii].map((sigma) =>
        sigma === 0
          ? grey
          : sharp(grey, raw)
              .blur({ sigma, ...exactBlur })
              .raw()
              .toBuffer(),
      ),
    )
    const glow = Buffer.from(
      grey.map((_, i) =>
        Math.round(
          Math.min(
            255,
            [0.4, 0.3, 0.2, 0.3].reduce((sum, part, k) => sum + part * parts[k]![i]!, 0),
          ),
        ),
      ),
    )
    const wanted = await sharp(withoutAlpha(pixels), raw)
      .composite([{ input: glow, ...raw, blend: 'screen' }])
      .removeAlpha()
      .raw()
      .toBuffer()
    expect(inside(ours.pixels, wanted, 4)).toBeLessThanOrEqual(2)
  })

  it('behind its subject leaves the subject as it is', () => {
    const photo = photoFrom(kernels, 'p', width, height, samplePixels(width, height, 3))
    const evaluator = evaluatorFor(kernels, photo)
    const one = effectOf('subjectGlow', 'rim-of-light', { region, shape: { spill: 0 } })
    const [bare, lit] = [[], [one]].map((effects) => renderAll(evaluator, sceneGraph({ photo, effects }), size).pixels)
    const at = (pixels: Uint8ClampedArray, x: number, y: number) => [...pixels.subarray(4 * (y * width + x), 4 * (y * width + x) + 3)]
    expect(at(lit!, 240, 160)).toEqual(at(bare!, 240, 160))
    expect(Math.max(...[0, 1, 2].map((c) => at(lit!, 303, 153)[c]! - at(bare!, 303, 153)[c]!))).toBeGreaterThan(8)
  })

  // Common practice, no source: three blurs of 5, 20–25 and 50 px around a line of 5 px; pure white must take a tint.
  it('starts with the blurs of the trade, and pure white takes a tint', () => {
    const { controls } = newEffect({ width: 3000, height: 2000 }, { kind: 'glowLine', look: 'warm-trail', id: 'a' })
    expect(controls.pattern).toMatchObject({ width: 5 })
    expect(controls.shape).toMatchObject({ tightRadius: 5, middleRadius: 22, wideRadius: 50 })
    const black = photoFrom(kernels, 'p', width, height, new Array(width * height).fill([0, 0, 0, 255]).flat())
    const corner = (x: number, y: number) => ({ x, y, inX: 0, inY: 0, outX: 0, outY: 0 })
    const line = effectOf('glowLine', 'warm-trail', {
      pattern: { paths: [[corner(100, 160), corner(380, 160)]], width: 5, taper: 0 },
      mix: { amount: 100 },
      colour: { ramp: null, tint: '#ff3300' },
    })
    const { pixels } = renderAll(evaluatorFor(kernels, black), sceneGraph({ photo: black, effects: [line] }), size)
    const middle = [...pixels.subarray(4 * (160 * width + 240), 4 * (160 * width + 240) + 3)]
    expect(middle[0]).toBeGreaterThan(250)
    expect(middle[1]! / middle[0]!).toBeCloseTo(0.2, 1)
    expect(middle[2]).toBeLessThan(4)
  })
})

describe('a sunburst behind silhouettes', () => {
  it('leaves them as they are but for its front spill, while the sky takes the rays', async () => {
    const file = fileURLToPath(new URL('../../../demo/photos/headland.jpg', import.meta.url))
    const { data, info } = await sharp(file).resize(1200).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
    const photo = photoFrom(kernels, 'p', info.width, info.height, data)
    const marks = { ...noMarks, lights: [{ id: 'sun', name: 'Sun', x: 649, y: 401, radius: 24, colour: '#ffd49a', strength: 100 }] }
    const evaluator = evaluatorFor(kernels, photo)
    const draw = (spill: number | undefined) => {
      const one = newEffect(info, { kind: 'sunburst', look: 'rays-through-haze', id: 'a' })
      if (spill !== undefined) one.where = { ...one.where, hold: 100 - spill }
      return renderAll(evaluator, sceneGraph({ photo, effects: spill === undefined ? [] : [one], marks }), info)
    }
    const [bare, sealed, spilt] = [draw(undefined), draw(0), draw(8)]
    // Silhouettes: what is darker than a quarter, a little inside its edge. Sky: what is bright.
    const dark = (x: number, y: number) => bare.pixels[4 * (y * info.width + x) + 1]! < 64
    const pick = (wanted: (x: number, y: number) => boolean) => (pixels: Uint8ClampedArray) => {
      const taken: number[] = []
      for (let y = 8; y < info.height - 8; y += 2)
        for (let x = 8; x < info.width - 8; x += 2)
          if (wanted(x, y)) taken.push(...pixels.subarray(4 * (y * info.width + x), 4 * (y * info.width + x) + 4))
      return { width: taken.length / 4, height: 1, pixels: new Uint8ClampedArray(taken) }
    }
    const silhouettes = pick((x, y) => [-6, 0, 6].every((dx) => [-6, 0, 6].every((dy) => dark(x + dx, y + dy))))
    const sky = pick((x, y) => y < 380 && bare.pixels[4 * (y * info.width + x) + 1]! > 120)
    const compared = (a: ReturnType<typeof sky>, b: ReturnType<typeof sky>) => compareColours(reduceInLinearLight(a, 1), b)
    expect(silhouettes(bare.pixels).width).toBeGreaterThan(10_000)
    expect(compared(silhouettes(bare.pixels), silhouettes(sealed.pixels)).percentile99).toBeLessThan(2)
    expect(compared(sky(bare.pixels), sky(sealed.pixels)).mean).toBeGreaterThan(2)
    const spill = compared(silhouettes(bare.pixels), silhouettes(spilt.pixels)).mean
    expect(spill).toBeGreaterThan(compared(silhouettes(bare.pixels), silhouettes(sealed.pixels)).mean)
  })
})

describe('a custom field', () => {
  const draw = (field: Effect, ...beneath: Effect[]) => {
    const photo = photoFrom(kernels, 'p', width, height, samplePixels(width, height, 4))
    const grey = Array.from({ length: width * height }, (_, i) => (i % width < width / 2 ? [255, 255, 255, 255] : [0, 0, 0, 255])).flat()
    const picture = photoFrom(kernels, 'picture', width, height, grey)
    const source = { photo, effects: [...beneath, field] }
    return planeOf(evaluatorFor(kernels, photo, picture), sceneGraph(source, { kind: 'step', effectId: field.id, step: 'pattern' }), size)
  }

  it('is made from a picture, and from the pattern of another effect, which it follows', () => {
    const half = draw(
      effectOf('customField', 'scan-lines', {
        pattern: { source: 'picture', picture: { id: 'picture', fileName: 'a.png', width, height } },
      }),
    )
    expect([half[160 * width + 40], half[160 * width + 440]]).toEqual([1, 0])
    const burst = effectOf('sunburst', 'small-aperture', { pattern: { follows: null, x: 100, y: 100 } })
    const field = draw(effectOf('customField', 'scan-lines', { pattern: { source: 'effect', of: burst.id } }), burst)
    expect(field[100 * width + 100]).toBeGreaterThan(0.9)
    expect(draw(effectOf('customField', 'scan-lines', { pattern: { source: 'effect', of: 'gone' } })).every((value) => value === 0)).toBe(
      true,
    )
  })
})

describe('odd values of light', () => {
  const photo = () => photoFrom(kernels, 'p', width, height, samplePixels(width, height, 9))

  it.each([
    ['rays', 'streaming-sun', { pattern: { follows: null, x: -90000, y: 70000 } }],
    ['rays', 'streaming-sun', { pattern: { length: 20000 } }],
    ['rays', 'shafts-from-above', { pattern: { follows: null, x: 200, y: 100, toX: 200, toY: 100 } }],
    ['sunburst', 'rays-through-haze', { pattern: { follows: null, x: 100000, y: -100000 } }],
    ['softFocus', 'dream-bloom', { pattern: { radius: 6000 } }],
    ['lightBloom', 'night-lights', { shape: { radius: 6000, reach: 60 } }],
    ['lamp', 'street-lamp', { pattern: { toX: 400, toY: 60, follows: null, x: 400, y: 60, inner: 89, outer: 0.5 } }],
    ['glowLine', 'warm-trail', { pattern: { paths: [[{ x: 50, y: 50, inX: 0, inY: 0, outX: 0, outY: 0 }]] } }],
    ['glowLine', 'warm-trail', { pattern: { paths: [] } }],
    ['sparkles', 'sea-glitter', { pattern: { count: 0 } }],
    ['subjectGlow', 'rim-of-light', { region: { masks: [], hold: 100 } }],
  ] as const)('%s, %s with %j gives a picture', (kind, look, change) => {
    const taken = photo()
    const one = effectSchema.parse(effectOf(kind, look, change as unknown as Change))
    const { pixels } = renderAll(evaluatorFor(kernels, taken), sceneGraph({ photo: taken, effects: [one] }), size)
    expect(pixels.filter((_, i) => i % 4 === 3).every((alpha) => alpha === 255)).toBe(true)
    expect(new Set(pixels).size).toBeGreaterThan(20)
  })

  it('an outline of two points is no region', () => {
    const taken = photo()
    const path = { hole: false, corners: [1, 2].map((k) => ({ x: 100 * k, y: 100, inX: 0, inY: 0, outX: 0, outY: 0 })) }
    const one = effectOf('subjectGlow', 'rim-of-light', { region: { masks: [maskOf(size, 'outline', { paths: [path] })], hold: 100 } })
    const [bare, lit] = [[], [one]].map(
      (effects) => renderAll(evaluatorFor(kernels, taken), sceneGraph({ photo: taken, effects }), size).pixels,
    )
    expect(Buffer.from(lit!).equals(Buffer.from(bare!))).toBe(true)
  })

  it.each([
    ['count', NaN],
    ['count', 1000],
    ['reach', -1],
    ['strength', Infinity],
  ])('a %s of %s is refused with its limits', (key, value) => {
    const one = effectOf('sunburst', 'sun-between-posts', { pattern: { [key]: value } })
    expect(effectSchema.safeParse(one).error?.issues[0]?.path.at(-1)).toBe(key)
  })
})
