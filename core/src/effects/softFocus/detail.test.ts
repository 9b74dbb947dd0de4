import { fileURLToPath } from 'node:url'
import sharp from 'sharp'
import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../../test-support/kernels'
import { evaluatorFor, photoFrom, renderAll, samplePixels } from '../../../test-support/pictures'
import type { Kernels } from '../../graph/operation'
import { sceneGraph } from '../../render/sceneGraph'
import { newEffect } from '../newEffect'
import type { Effect } from '../registry'

let kernels: Kernels
beforeAll(async () => {
  kernels = await loadKernels()
})

const size = { width: 300, height: 200 }

type SoftFocus = Extract<Effect, { kind: 'softFocus' }>

function softFocus(
  pattern: Partial<SoftFocus['controls']['pattern']>,
  shape: Partial<SoftFocus['controls']['shape']>,
  mix: Partial<Effect['mix']> = {},
) {
  const made = newEffect(size, { kind: 'softFocus', look: 'veil', id: 's' }) as SoftFocus
  Object.assign(made.controls.pattern, { contrast: 0, brightness: 0 }, pattern)
  Object.assign(made.controls.shape, { detail: 0 }, shape)
  Object.assign(made.mix, { amount: 100 }, mix)
  return made
}

function rendered(effect: Effect, rgba: ArrayLike<number>, { width, height } = size): Uint8ClampedArray {
  const photo = photoFrom(kernels, 'photo', width, height, rgba)
  return renderAll(evaluatorFor(kernels, photo), sceneGraph({ photo, effects: [effect] }), photo).pixels
}

const encoded = (v: number): number => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055)
const linear = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)

// Common practice, no source: sharp detail at full strength over a weak glow, by a high-pass laid over the soft picture.
describe('soft focus with its detail at full strength over a weak glow', () => {
  const folder = fileURLToPath(new URL('../../../../demo/photos/', import.meta.url))
  const overlay = (base: number, over: number): number => (base <= 0.5 ? 2 * base * over : 1 - 2 * (1 - base) * (1 - over))
  const linearLight = (base: number, over: number): number => base + 2 * over - 1

  it.each([
    ['ferry-quay', 'overlay', 1, 100, overlay],
    ['pine-inlet', 'linear-light', 3, 40, linearLight],
    ['ship-lantern', 'overlay', 4, 250, overlay],
  ] as const)('on %s, by %s of %d px at %d %%, is the same steps with sharp', async (name, detailMode, detailRadius, detail, mode) => {
    const { data, info } = await sharp(`${folder}${name}.jpg`)
      .extract({ left: 1200, top: 700, width: 240, height: 160 })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true })
    const effect = softFocus(
      { by: 'veil', radius: 6 },
      { detailBy: 'own', detailWith: 'own', detail, detailMode, detailRadius },
      { amount: 15 },
    )
    const found = rendered(effect, data, info)
    // 16 bits, so that only what is compared is rounded.
    const tones = Uint16Array.from(
      [...data].filter((_, i) => i % 4 < 3),
      (code) => 257 * code,
    )
    const blurred = async (sigma: number) => {
      const found = await sharp(tones, { raw: { width: info.width, height: info.height, channels: 3 } })
        .blur({ sigma, precision: 'float', minAmplitude: 0.001 })
        .toColourspace('rgb16')
        .raw({ depth: 'ushort' })
        .toBuffer()
      return Float32Array.from(new Uint16Array(found.buffer, found.byteOffset, found.byteLength / 2), (code) => code / 65535)
    }
    const [soft, smooth] = await Promise.all([blurred(6), blurred(detailRadius)])
    const most = 26
    for (let i = 0; i < data.length; i += 37) {
      const [x, y] = [(i >> 2) % info.width, Math.floor((i >> 2) / info.width)]
      // sharp has another border than ours.
      if (i % 4 === 3 || x < most || y < most || x >= info.width - most || y >= info.height - most) continue
      const tone = data[i]! / 255
      const at = 3 * (i >> 2) + (i % 4)
      const glow = tone + 0.15 * (soft[at]! - tone)
      const base = Math.min(1, Math.max(0, glow))
      const high = Math.min(1, Math.max(0, 0.5 + tone - smooth[at]!))
      const wanted = base + (detail / 100) * (mode(base, high) - base)
      expect(Math.abs(found[i]! - 255 * Math.min(1, Math.max(0, wanted))), `${x} ${y}`).toBeLessThanOrEqual(2)
    }
  })

  it('does not follow the amount of the glow, and follows it as before where that is chosen', () => {
    const pixels = samplePixels(size.width, size.height, 3)
    const own = (amount: number) =>
      rendered(softFocus({ radius: 0 }, { detailBy: 'own', detailWith: 'own', detail: 60, detailRadius: 2 }, { amount }), pixels)
    const followed = (amount: number, detail: number) =>
      rendered(softFocus({ radius: 0 }, { detailBy: 'fine', detailWith: 'effect', detail }, { amount }), pixels)
    expect(own(5)).toEqual(own(90))
    expect(followed(50, 80)).toEqual(followed(100, 40))
    expect(followed(50, 80)).not.toEqual(followed(100, 80))
  })

  it('has a picture of its own: mid-grey where nothing comes back, lighter and darker where something does', () => {
    const half = samplePixels(size.width, size.height, 3).map((code, i) => (i % (4 * size.width) < 2 * size.width ? code : 120))
    const photo = photoFrom(kernels, 'photo', size.width, size.height, half)
    const effect = softFocus({}, { detailBy: 'own', detailWith: 'own', detail: 40, detailRadius: 2 })
    const { pixels } = renderAll(
      evaluatorFor(kernels, photo),
      sceneGraph({ photo, effects: [effect] }, { kind: 'detail', effectId: 's' }),
      photo,
    )
    const greens = (from: number, to: number) =>
      [...pixels].filter((_, i) => i % 4 === 1 && (i >> 2) % size.width >= from && (i >> 2) % size.width < to)
    expect(Math.max(...greens(0, 140))).toBeGreaterThan(150)
    expect(Math.min(...greens(0, 140))).toBeLessThan(105)
    for (const code of greens(180, 300)) expect(Math.abs(code - 128)).toBeLessThanOrEqual(1)
  })

  it('is off by its switch, whatever its strength', () => {
    const pixels = samplePixels(size.width, size.height, 3)
    expect(rendered(softFocus({}, { detailBy: 'off', detail: 300 }), pixels)).toEqual(rendered(softFocus({}, { detail: 0 }), pixels))
  })
})

describe('the copies of a pair', () => {
  const [light, dark] = [
    { contrast: 30, brightness: -5, saturation: 60, tint: '#ffd8b0' },
    { darkContrast: -20, darkBrightness: 4, darkSaturation: 150, darkTint: '#b8c8ff' },
  ]
  const flat = [110, 150, 70]
  const pixels = Uint8ClampedArray.from({ length: 4 * size.width * size.height }, (_, i) => (i % 4 === 3 ? 255 : flat[i % 4]!))

  /** Tint of its own luminance, then saturation about luma (feColorMatrix), then contrast and brightness, on sRGB-encoded values. */
  function changed(tones: number[], contrast: number, brightness: number, saturation: number, tint: string): number[] {
    const weights = [0.2126, 0.7152, 0.0722]
    const colour = [1, 3, 5].map((at) => linear(parseInt(tint.slice(at, at + 2), 16) / 255))
    const own = colour.reduce((sum, value, k) => sum + value * weights[k]!, 0)
    const tinted = tones.map((tone, k) => encoded((linear(tone) * colour[k]!) / own))
    const luma = tinted.reduce((sum, value, k) => sum + value * weights[k]!, 0)
    return tinted.map((value) => (luma + (saturation / 100) * (value - luma) - 0.5) * (1 + contrast / 100) + 0.5 + brightness / 100)
  }

  it.each(['dark', 'light'] as const)('are changed each by itself, and laid in their order: %s first', (first) => {
    const effect = softFocus({ by: 'pair', radius: 5, lightRadius: 5, first, ...light, ...dark }, { glow: 70, darkening: 50 })
    const found = rendered(effect, pixels)
    const within = (value: number): number => Math.min(1, Math.max(0, value))
    const base = flat.map((code) => code / 255)
    const bright = changed(base, 30, -5, 60, light.tint)
    const deep = changed(base, -20, 4, 150, dark.darkTint)
    const multiply = (under: number, k: number): number => under + 0.5 * (within(under) * within(deep[k]!) - under)
    const screen = (under: number, k: number): number => under + 0.7 * (1 - (1 - within(under)) * (1 - within(bright[k]!)) - under)
    base.forEach((tone, k) => {
      const wanted = first === 'dark' ? screen(multiply(tone, k), k) : multiply(screen(tone, k), k)
      expect(Math.abs(found[4 * (100 * size.width + 150) + k]! - 255 * within(wanted)), `channel ${k}`).toBeLessThanOrEqual(1)
    })
  })
})
