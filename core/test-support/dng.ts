// Raw files as a camera would write them (DNG 1.4; a TIFF with one mosaic), of a picture that is known.

interface Mosaic {
  readonly width: number
  readonly height: number
  /** Colours of a square of two by two: 0 red, 1 green, 2 blue. */
  readonly pattern: readonly [number, number, number, number]
  readonly compressed: boolean
  /** EXIF orientation. */
  readonly orientation?: number
  /** Whether the camera sees as Display-P3 does instead of sRGB. */
  readonly wide?: boolean
  /** Linear light of a colour at a place, 0-1. */
  light(x: number, y: number, colour: number): number
}

const [BYTE, ASCII, SHORT, LONG, RATIONAL, SIGNED_RATIONAL] = [1, 2, 3, 4, 5, 10] as const
const bytesOf: Record<number, number> = { [BYTE]: 1, [ASCII]: 1, [SHORT]: 2, [LONG]: 4, [RATIONAL]: 8, [SIGNED_RATIONAL]: 8 }
/** From CIE XYZ under D65 to linear sRGB (IEC 61966-2-1): the camera sees as sRGB does. */
const XYZ_TO_SRGB = [3.2406, -1.5372, -0.4986, -0.9689, 1.8758, 0.0415, 0.0557, -0.204, 1.057]
/** The same for Display-P3 (CSS Color Module Level 4). */
const XYZ_TO_P3 = [2.4935, -0.9314, -0.4027, -0.8295, 1.7627, 0.0236, 0.0358, -0.0762, 0.9569]

export function dngOf(mosaic: Mosaic): Uint8Array {
  const { width, height, pattern, compressed, orientation = 1, wide = false } = mosaic
  const codes = new Uint16Array(width * height)
  for (let i = 0; i < codes.length; i++) {
    const [x, y] = [i % width, Math.floor(i / width)]
    codes[i] = Math.round(65535 * mosaic.light(x, y, pattern[2 * (y % 2) + (x % 2)]!))
  }
  const data = compressed ? losslessJpeg(codes, width, height) : new Uint8Array(codes.buffer)
  const text = (words: string): number[] => [...words, '\0'].map((letter) => letter.charCodeAt(0))
  const entries: [tag: number, type: number, values: readonly number[]][] = [
    [254, LONG, [0]],
    [256, LONG, [width]],
    [257, LONG, [height]],
    [258, SHORT, [16]],
    [259, SHORT, [compressed ? 7 : 1]],
    [262, SHORT, [32803]],
    [271, ASCII, text('Welkinar')],
    [272, ASCII, text('Test')],
    [273, LONG, [0]],
    [274, SHORT, [orientation]],
    [277, SHORT, [1]],
    [278, LONG, [height]],
    [279, LONG, [data.length]],
    [284, SHORT, [1]],
    [33421, SHORT, [2, 2]],
    [33422, BYTE, pattern],
    [50706, BYTE, [1, 4, 0, 0]],
    [50707, BYTE, [1, 1, 0, 0]],
    [50708, ASCII, text('Welkinar Test')],
    [50717, LONG, [65535]],
    [50721, SIGNED_RATIONAL, (wide ? XYZ_TO_P3 : XYZ_TO_SRGB).flatMap((value) => [Math.round(1e4 * value), 1e4])],
    [50728, RATIONAL, [1, 1, 1, 1, 1, 1]],
    [50778, SHORT, [21]],
  ]
  const directory = 8
  const behind = directory + 2 + 12 * entries.length + 4
  const lengths = entries.map(([, type, values]) => (bytesOf[type]! * values.length) / (type >= RATIONAL ? 2 : 1))
  const start = behind + lengths.filter((length) => length > 4).reduce((sum, length) => sum + length + (length % 2), 0)
  const file = new Uint8Array(start + data.length)
  const view = new DataView(file.buffer)
  file.set([0x49, 0x49, 42, 0, directory])
  view.setUint16(directory, entries.length, true)
  let next = behind
  entries.forEach(([tag, type, given], e) => {
    const values = tag === 273 ? [start] : given
    const entry = directory + 2 + 12 * e
    const length = lengths[e]!
    view.setUint16(entry, tag, true)
    view.setUint16(entry + 2, type, true)
    view.setUint32(entry + 4, length / bytesOf[type]!, true)
    const to = length > 4 ? next : entry + 8
    if (length > 4) {
      view.setUint32(entry + 8, next, true)
      next += length + (length % 2)
    }
    values.forEach((value, k) => {
      if (type === BYTE || type === ASCII) view.setUint8(to + k, value)
      else if (type === SHORT) view.setUint16(to + 2 * k, value, true)
      else view.setInt32(to + 4 * k, value, true)
    })
  })
  file.set(data, start)
  return file
}

/** A lossless JPEG of one component of 16 bits (ITU-T T.81, annex H): each value less that to its left, in classes of their lengths, all classes with codes of five bits. */
function losslessJpeg(codes: Uint16Array, width: number, height: number): Uint8Array {
  const bytes: number[] = []
  const word = (value: number): number => bytes.push(value >> 8, value & 255)
  word(0xffd8)
  word(0xffc3)
  word(11)
  bytes.push(16)
  word(height)
  word(width)
  bytes.push(1, 0, 0x11, 0)
  word(0xffc4)
  word(2 + 17 + 17)
  bytes.push(0, 0, 0, 0, 0, 17, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0)
  for (let length = 0; length <= 16; length++) bytes.push(length)
  word(0xffda)
  word(8)
  bytes.push(1, 0, 0x00, 1, 0, 0)
  let [held, count] = [0, 0]
  const put = (value: number, bits: number): void => {
    for (let bit = bits - 1; bit >= 0; bit--) {
      held = (held << 1) | ((value >> bit) & 1)
      if (++count < 8) continue
      bytes.push(held)
      if (held === 255) bytes.push(0)
      held = count = 0
    }
  }
  for (let i = 0; i < codes.length; i++) {
    const predicted = i === 0 ? 32768 : i % width === 0 ? codes[i - width]! : codes[i - 1]!
    let off = ((codes[i]! - predicted + 32768) & 65535) - 32768
    const length = off === -32768 ? 16 : off === 0 ? 0 : 32 - Math.clz32(Math.abs(off))
    put(length, 5)
    if (length === 16) continue
    if (off < 0) off += (1 << length) - 1
    put(off, length)
  }
  put(127, 7)
  word(0xffd9)
  return Uint8Array.from(bytes)
}
