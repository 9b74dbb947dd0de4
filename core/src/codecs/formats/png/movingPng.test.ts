import { buf as crc32 } from 'crc-32'
import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { MovingPng } from './movingPng'

/** Name and data of each chunk (W3C PNG, third edition, 5.3); its checksum has to be right. */
function chunks(file: Uint8Array): { name: string; data: Uint8Array }[] {
  const view = new DataView(file.buffer, file.byteOffset)
  const found = []
  for (let at = 8; at < file.length;) {
    const length = view.getUint32(at)
    expect(view.getInt32(at + 8 + length)).toBe(crc32(file.subarray(at + 4, at + 8 + length)))
    found.push({ name: String.fromCharCode(...file.subarray(at + 4, at + 8)), data: file.subarray(at + 8, at + 8 + length) })
    at += 12 + length
  }
  return found
}

const frame = async (background: string) =>
  new Uint8Array(
    await sharp({ create: { width: 20, height: 12, channels: 3, background } })
      .png()
      .toBuffer(),
  )

describe('a PNG that moves', () => {
  it('has its frames in order, each numbered, as the standard says', async () => {
    const moving = new MovingPng(3, 12.5)
    for (const colour of ['#f00', '#0f0', '#00f']) moving.add(await frame(colour))
    const found = chunks(new Uint8Array(await moving.finish().arrayBuffer()))
    const names = found.map(({ name }) => name).filter((name) => name !== 'pHYs')
    expect(names).toEqual(['IHDR', 'acTL', 'fcTL', 'IDAT', 'fcTL', 'fdAT', 'fcTL', 'fdAT', 'IEND'])
    const number = (data: Uint8Array, at: number) => new DataView(data.buffer, data.byteOffset).getUint32(at)
    expect([0, 4].map((at) => number(found.find(({ name }) => name === 'acTL')!.data, at))).toEqual([3, 0])
    const numbered = found.filter(({ name }) => name === 'fcTL' || name === 'fdAT')
    expect(numbered.map(({ data }) => number(data, 0))).toEqual([0, 1, 2, 3, 4])
    const control = found.find(({ name }) => name === 'fcTL')!.data
    // Width, height, offsets; how long it stands; whole pictures in the place of each other.
    expect([4, 8, 12, 16].map((at) => number(control, at))).toEqual([20, 12, 0, 0])
    expect([...control.subarray(20)]).toEqual([0, 100, 1250 >> 8, 1250 & 255, 0, 0])
  })

  it('shows its first frame to readers that know none', async () => {
    const moving = new MovingPng(2, 10)
    for (const colour of ['#123456', '#fff']) moving.add(await frame(colour))
    const { data } = await sharp(await moving.finish().arrayBuffer())
      .raw()
      .toBuffer({ resolveWithObject: true })
    expect([...data.subarray(0, 3)]).toEqual([0x12, 0x34, 0x56])
  })

  it('is no file with too many frames, or too few', async () => {
    const moving = new MovingPng(1, 10)
    expect(() => moving.finish()).toThrow('0 of 1')
    moving.add(await frame('#000'))
    expect(() => moving.add(new Uint8Array(20))).toThrow('more than 1')
  })
})
