import { inflate } from 'pako'
import { UserProblem } from '../../model/userProblem'
import { decodeLzw } from './lzw'
import { tags, type TiffDirectory } from './tiffDirectory'

/** Compressions (TIFF 6.0 and the supplement of 2002). */
export const compressions = {
  none: 1,
  fax1d: 2,
  fax3: 3,
  fax4: 4,
  lzw: 5,
  oldJpeg: 6,
  jpeg: 7,
  deflate: 8,
  packBits: 32773,
  deflateBefore: 32946,
} as const

const names: Readonly<Record<number, string>> = {
  6: 'old JPEG',
  34661: 'JBIG',
  34712: 'JPEG 2000',
  34925: 'LZMA',
  34887: 'LERC',
  50000: 'Zstandard',
  50001: 'WebP',
  50002: 'JPEG XL',
  52546: 'JPEG XL',
}

/** Bits in the other order. */
const turned = Uint8Array.from({ length: 256 }, (_, byte) =>
  [...Array(8).keys()].reduce((sum, bit) => sum | (((byte >> bit) & 1) << (7 - bit)), 0),
)

/**
 * What a strip or tile holds when it is expanded.
 * @param size bytes that it has then; one that has fewer is filled up with zeros
 * @param width px of a row, for fax
 * @throws UserProblem for a compression that cannot be read; Error on broken data
 */
export async function expanded(directory: TiffDirectory, data: Uint8Array, size: number, width: number): Promise<Uint8Array> {
  const compression = directory.value(tags.compression) ?? compressions.none
  const isTurned = directory.value(tags.fillOrder) === 2
  const upright = isTurned && !isFax(compression) ? data.map((byte) => turned[byte] ?? 0) : data
  const found = await expandedBy(compression, directory, upright, size, width)
  if (found.length >= size) return found.subarray(0, size)
  const whole = new Uint8Array(size)
  whole.set(found)
  return whole
}

function isFax(compression: number): boolean {
  return compression === compressions.fax1d || compression === compressions.fax3 || compression === compressions.fax4
}

async function expandedBy(
  compression: number,
  directory: TiffDirectory,
  data: Uint8Array,
  size: number,
  width: number,
): Promise<Uint8Array> {
  switch (compression) {
    case compressions.none:
      return data
    case compressions.lzw:
      return decodeLzw(data, size)
    case compressions.deflate:
    case compressions.deflateBefore:
      return inflate(data)
    case compressions.packBits:
      return unpackedBits(data, size)
    case compressions.fax1d:
    case compressions.fax3:
    case compressions.fax4:
      return decodedFax(compression, directory, data, size, width)
    default: {
      const name = names[compression]
      throw new UserProblem(
        `it is compressed as ${name ?? `number ${compression} of TIFF`}, which cannot be read; save it with LZW or without compression.`,
      )
    }
  }
}

/** PackBits (TIFF 6.0, section 9). */
function unpackedBits(data: Uint8Array, size: number): Uint8Array {
  const out = new Uint8Array(size)
  let to = 0
  for (let at = 0; at < data.length && to < size;) {
    const count = ((data[at++] ?? 0) << 24) >> 24
    if (count >= 0) {
      out.set(data.subarray(at, Math.min(at + count + 1, at + size - to)), to)
      at += count + 1
      to += count + 1
    } else if (count > -128) {
      out.fill(data[at++] ?? 0, to, Math.min(size, to + 1 - count))
      to += 1 - count
    }
  }
  return out
}

interface Fax {
  _decodeG2(data: Uint8Array, offset: number, length: number, out: Uint8Array, to: number, width: number, order: number): void
  _decodeG3(
    data: Uint8Array,
    offset: number,
    length: number,
    out: Uint8Array,
    to: number,
    width: number,
    order: number,
    twoDimensional: boolean,
  ): void
  _decodeG4(data: Uint8Array, offset: number, length: number, out: Uint8Array, to: number, width: number, order: number): void
}

/** ITU-T T.4 and T.6, by utif2. */
async function decodedFax(
  compression: number,
  directory: TiffDirectory,
  data: Uint8Array,
  size: number,
  width: number,
): Promise<Uint8Array> {
  const { decode } = (await import('utif2')) as unknown as { readonly decode: Fax }
  const out = new Uint8Array(size)
  const order = directory.value(tags.fillOrder) ?? 1
  if (compression === compressions.fax4) decode._decodeG4(data, 0, data.length, out, 0, width, order)
  else if (compression === compressions.fax3)
    decode._decodeG3(data, 0, data.length, out, 0, width, order, ((directory.value(tags.faxOptions) ?? 0) & 1) === 1)
  else decode._decodeG2(data, 0, data.length, out, 0, width, order)
  return out
}
