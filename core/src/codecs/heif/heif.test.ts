import { readFileSync } from 'node:fs'
import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { testCodecs } from '../../../test-support/codecs'
import { rgba8Of, samplePixels } from '../../../test-support/pictures'
import { openPhoto } from '../openPhoto'
import { readHeifHeader } from '../header/heifHeader'

// HEIC files by heif-enc 1.15 of Debian, of pictures that are made again here; AVIF by sharp 0.35 (libheif), which reads the turned ones too.

const file = (name: string): Uint8Array => new Uint8Array(readFileSync(new URL(`../../../test-support/files/${name}`, import.meta.url)))
const mean = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  expect(a.length).toBe(b.length)
  return Array.from(a).reduce((sum, value, i) => sum + Math.abs(value - b[i]!), 0) / a.length
}

describe('HEIC files', () => {
  /** RGBA of 96 × 64 px by a formula for red, green and blue, 0-255. */
  const made = (colour: (x: number, y: number) => readonly number[]): number[] =>
    Array.from({ length: 96 * 64 }, (_, i) => [...colour(i % 96, Math.floor(i / 96)), 255]).flat()
  const wanted = made((x, y) => [2.6 * x, 3.9 * y, x > 60 && y < 20 ? 255 : 60])

  it('of 8 bits have the colours that they were made of', async () => {
    const { full, notices } = await openPhoto(file('eight.heic'), 'a.heic', testCodecs, { space: 'srgb' })
    expect([full.width, full.height, full.format]).toEqual([96, 64, 'rgba8'])
    expect(mean(rgba8Of(full), wanted)).toBeLessThan(4)
    expect(notices).toEqual([])
  })

  it('of 10 bits keep their depth', async () => {
    expect(readHeifHeader(file('ten.heic')).depth).toBe(10)
    const { full } = await openPhoto(file('ten.heic'), 'a.heic', testCodecs, { space: 'srgb' })
    expect(full.format).toBe('rgb16')
    expect(
      mean(
        rgba8Of(full),
        made((x, y) => [x / 96, y / 64, (x + y) / 160].map((part) => 255 * part)),
      ),
    ).toBeLessThan(2)
    expect(new Set(new Uint16Array(full.pixels)).size).toBeGreaterThan(300)
  })

  it('are converted from the profile that they carry', async () => {
    const { wide, notices } = await openPhoto(file('displayP3.heic'), 'a.heic', testCodecs, { space: 'srgb' })
    expect(wide).toBe(true)
    expect(notices.join()).toMatch(/were converted from .*P3.* to sRGB/)
  })

  it('that are broken are said to be', async () => {
    for (const length of [40, 200, 700])
      await expect(openPhoto(file('eight.heic').slice(0, length), 'a.heic', testCodecs)).rejects.toThrow('“a.heic”')
  })
})

/** An AVIF with boxes of turning (degrees counter-clockwise) and mirroring before the primary picture's other properties are associated. */
function turnedAvif(avif: Uint8Array, boxes: readonly (readonly ['irot' | 'imir', number])[]): Uint8Array {
  const text = Buffer.from(avif).toString('latin1')
  const at = (name: string): number => text.indexOf(name) - 4
  const view = new DataView(avif.buffer, avif.byteOffset)
  const ipco = at('ipco')
  const ipma = at('ipma')
  const extra = boxes.flatMap(([name, value]) => [0, 0, 0, 9, ...[...name].map((letter) => letter.charCodeAt(0)), value])
  let known = 0
  for (let box = ipco + 8; box < ipco + view.getUint32(ipco); box += view.getUint32(box)) known++
  const added = boxes.map((_, i) => 0x80 | (known + 1 + i))
  const end = ipco + view.getUint32(ipco)
  const countAt = ipma + 8 + 4 + 4 + 2
  const made = [...avif.subarray(0, end), ...extra, ...avif.subarray(end, countAt), avif[countAt]! + added.length]
  const own = avif.subarray(countAt + 1, countAt + 1 + avif[countAt]!)
  const whole = Uint8Array.from([...made, ...own, ...added, ...avif.subarray(countAt + 1 + own.length)])
  const out = new DataView(whole.buffer)
  const grow = (place: number, by: number): void => out.setUint32(place, out.getUint32(place) + by)
  grow(ipco, extra.length)
  grow(ipma + extra.length, added.length)
  grow(at('iprp'), extra.length + added.length)
  grow(at('meta'), extra.length + added.length)
  // Where the picture lies: iloc with a base offset or an extent that counts from the file's beginning.
  const iloc = at('iloc')
  expect([out.getUint8(iloc + 12), out.getUint8(iloc + 13) >> 4]).toEqual([0x44, 4])
  for (let i = 0, place = iloc + 16; i < out.getUint16(iloc + 14); i++, place += 18)
    grow(out.getUint32(place + 4) > 0 ? place + 4 : place + 10, extra.length + added.length)
  return whole
}

describe('AVIF files that are turned', () => {
  const size = { width: 64, height: 48 }
  const picture = () => sharp(samplePixels(size.width, size.height), { raw: { ...size, channels: 4 } }).removeAlpha()

  it.each([
    [[['irot', 1]], 8],
    [[['irot', 2]], 3],
    [[['irot', 3]], 6],
    [[['imir', 0]], 4],
    [[['imir', 1]], 2],
    [
      [
        ['irot', 1],
        ['imir', 1],
      ],
      7,
    ],
    [
      [
        ['irot', 1],
        ['imir', 0],
      ],
      5,
    ],
  ] as const)('by %j stand upright, as sharp has them', async (boxes, turn) => {
    const avif = new Uint8Array(await picture().avif({ quality: 90, chromaSubsampling: '4:4:4' }).toBuffer())
    const turned = turnedAvif(avif, boxes)
    expect(readHeifHeader(turned).turn).toBe(turn)
    const { full } = await openPhoto(turned, 'a.avif', testCodecs)
    const { data, info } = await sharp(turned).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
    expect([full.width, full.height]).toEqual([info.width, info.height])
    expect(mean(rgba8Of(full), data)).toBeLessThan(2)
  })
})
