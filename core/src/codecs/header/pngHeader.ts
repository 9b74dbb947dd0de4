import { buf as crc32 } from 'crc-32'
import { Inflate } from 'pako'
import { numberAt, textAt } from '../bytesAt'
import { joinBytes } from '../joinBytes'
import { byGamma, byNumbers, chromaticitiesAt, type Primaries } from '../profile/describedProfile'
import { turnOfExif, withoutExifMark } from './exifBlock'
import { emptyHeader, MOST_PROFILE, usableProfile, type PhotoHeader } from './photoHeader'

const SIGNATURE = 8
/** Length, name and checksum. */
const AROUND = 12
/** Bit of a chunk's name that says that the picture can be shown without it. */
const ANCILLARY = 0x20

interface Chunk {
  readonly name: string
  readonly content: Uint8Array
}

/**
 * Walks the chunks of a PNG (W3C PNG, third edition) once. The decoder stops dead at broken data and cannot be made anew, so that it must not see any:
 * broken data costs it stack every time.
 */
export function readPngHeader(bytes: Uint8Array): PhotoHeader {
  const { chunks, isCutShort, isSound } = walk(bytes)
  const find = (wanted: string): Uint8Array | undefined => chunks.find(({ name }) => name === wanted)?.content
  const first = find('IHDR') ?? new Uint8Array()
  // What says how the picture is to be shown stands before it.
  const data = chunks.findIndex(({ name }) => name === 'IDAT')
  const before = data < 0 ? chunks : chunks.slice(0, data)
  const exif = find('eXIf')
  const block = exif && withoutExifMark(exif)
  return {
    ...emptyHeader,
    width: numberAt(first, 0, 4),
    height: numberAt(first, 4, 4),
    depth: first[8] ?? 8,
    isAnimated: before.some(({ name }) => name === 'acTL'),
    isCutShort,
    isSound,
    profile: profileOf(before.find(({ name }) => name === 'iCCP')?.content),
    described: describedBy(before),
    exif: block,
    turn: turnOfExif(block),
  }
}

function walk(bytes: Uint8Array): { chunks: Chunk[]; isCutShort: boolean; isSound: boolean } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const chunks: Chunk[] = []
  for (let at = SIGNATURE; at + AROUND <= bytes.length;) {
    const end = at + AROUND + view.getUint32(at)
    if (end > bytes.length) break
    const name = textAt(bytes, at + 4, 4)
    const isNeeded = ((bytes[at + 4] ?? 0) & ANCILLARY) === 0
    if (isNeeded && crc32(bytes.subarray(at + 4, end - 4)) !== view.getInt32(end - 4)) return { chunks, isCutShort: false, isSound: false }
    chunks.push({ name, content: bytes.subarray(at + 8, end - 4) })
    if (name === 'IEND') return { chunks, isCutShort: false, isSound: true }
    at = end
  }
  return { chunks, isCutShort: true, isSound: true }
}

/** cICP goes before sRGB, and that before gAMA and cHRM (11.3.2). */
function describedBy(before: readonly Chunk[]): PhotoHeader['described'] {
  let [gamma, chromaticities]: [number | undefined, Primaries | undefined] = [undefined, undefined]
  const numbers = before.find(({ name }) => name === 'cICP')?.content
  if (numbers) return byNumbers(numbers[0] ?? 2, numbers[1] ?? 2)
  for (const { name, content } of before) {
    if (name === 'sRGB') return undefined
    if (name === 'gAMA') gamma = numberAt(content, 0, 4) / 100_000
    if (name === 'cHRM') chromaticities = chromaticitiesAt(content)
  }
  return byGamma(gamma, chromaticities)
}

/** Chunk iCCP: a name, a zero, the method 0, and the profile by zlib (11.3.2.3). */
function profileOf(content: Uint8Array | undefined): Uint8Array | undefined {
  const zero = content?.indexOf(0) ?? -1
  return content && zero >= 0 ? usableProfile(inflated(content.subarray(zero + 2))) : undefined
}

function inflated(data: Uint8Array): Uint8Array | undefined {
  const pieces: Uint8Array[] = []
  let total = 0
  const inflate = new Inflate()
  inflate.onData = (piece) => {
    total += piece.length
    // A small file can hold a huge profile of zeros.
    if (total > MOST_PROFILE) throw new Error('too large')
    pieces.push(piece as Uint8Array)
  }
  try {
    inflate.push(data, true)
  } catch {
    return undefined
  }
  return inflate.err ? undefined : joinBytes(pieces)
}
