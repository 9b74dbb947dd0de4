import { numberAt, textAt } from '../bytesAt'
import { byNumbers } from '../profile/describedProfile'
import { emptyHeader, usableProfile, type PhotoHeader } from './photoHeader'

interface Box {
  readonly type: string
  readonly content: Uint8Array
}

/** The boxes that some bytes hold, as far as they are whole. */
function boxesIn(bytes: Uint8Array): Box[] {
  const boxes: Box[] = []
  for (let at = 0; at + 8 <= bytes.length;) {
    const short = numberAt(bytes, at, 4)
    const isLong = short === 1
    const length = short === 0 ? bytes.length - at : isLong ? numberAt(bytes, at + 12, 4) : short
    const head = isLong ? 16 : 8
    if (length < head) break
    boxes.push({ type: textAt(bytes, at + 4, 4), content: bytes.subarray(at + head, Math.min(bytes.length, at + length)) })
    at += length
  }
  return boxes
}

const contentOf = (boxes: readonly Box[], type: string): Uint8Array | undefined => boxes.find((box) => box.type === type)?.content

/** A box that says its version and flags first. */
const VERSION = 4

/** What the boxes of a HEIF file, of which AVIF and HEIC are kinds, say of its first picture (ISO/IEC 23008-12, ISO/IEC 14496-12). EXIF says nothing of its turn: boxes do. */
export function readHeifHeader(bytes: Uint8Array): PhotoHeader {
  const inMeta = boxesIn((contentOf(boxesIn(bytes), 'meta') ?? new Uint8Array()).subarray(VERSION))
  const primary = contentOf(inMeta, 'pitm')
  const item = primary ? numberAt(primary, VERSION, (primary[0] ?? 0) === 0 ? 2 : 4) : 1
  const properties = boxesIn(contentOf(inMeta, 'iprp') ?? new Uint8Array())
  const all = boxesIn(contentOf(properties, 'ipco') ?? new Uint8Array())
  const own = propertiesOf(contentOf(properties, 'ipma'), item).flatMap((index) => all[index - 1] ?? [])
  // ISO/IEC 23008-12, 6.5.3.
  const extent = contentOf(own, 'ispe') ?? new Uint8Array()
  return {
    ...emptyHeader,
    width: numberAt(extent, VERSION, 4),
    height: numberAt(extent, VERSION + 4, 4),
    depth: depthOf(own),
    turn: turnOf(own),
    profile: usableProfile(profileOf(own)),
    described: describedBy(own),
  }
}

/** Which properties an item has, in their order, counted from 1. */
function propertiesOf(table: Uint8Array | undefined, item: number): number[] {
  if (!table) return []
  const [isLongItem, isLongIndex] = [(table[0] ?? 0) >= 1, ((table[3] ?? 0) & 1) === 1]
  const count = numberAt(table, VERSION, 4)
  let at = VERSION + 4
  for (let i = 0; i < count && at < table.length; i++) {
    const id = numberAt(table, at, isLongItem ? 4 : 2)
    at += isLongItem ? 4 : 2
    const associations = table[at++] ?? 0
    const found: number[] = []
    for (let k = 0; k < associations; k++) {
      found.push(isLongIndex ? numberAt(table, at, 2) & 0x7fff : (table[at] ?? 0) & 0x7f)
      at += isLongIndex ? 2 : 1
    }
    if (id === item) return found
  }
  return []
}

/** By pixi, or by the configuration of the codec. */
function depthOf(own: readonly Box[]): number {
  const pixi = contentOf(own, 'pixi')
  if (pixi) return pixi[VERSION + 1] ?? 8
  const [hevc, av1] = [contentOf(own, 'hvcC'), contentOf(own, 'av1C')]
  if (hevc) return ((hevc[17] ?? 0) & 7) + 8
  return av1 && ((av1[2] ?? 0) & 0x40) !== 0 ? 10 : 8
}

/** Where the corners of what is shown come from, clockwise from the top left, for each EXIF orientation. */
const corners = { 1: '0123', 2: '1032', 3: '2301', 4: '3210', 5: '0321', 6: '3012', 7: '2103', 8: '1230' } as const
const quarterTurns = [1, 8, 3, 6] as const

/** All turns and mirrors in their order, as one. */
function turnOf(own: readonly Box[]): number {
  let shown: string = corners[1]
  for (const { type, content } of own) {
    const [first = 0] = content
    // Counter-clockwise; mirrored upside down, or left to right.
    const step = type === 'irot' ? quarterTurns[first & 3] : type === 'imir' ? ((first & 1) === 0 ? 4 : 2) : undefined
    if (step) shown = [...corners[step]].map((from) => shown[Number(from)]).join('')
  }
  return Number(Object.entries(corners).find(([, order]) => order === shown)?.[0] ?? 1)
}

function profileOf(own: readonly Box[]): Uint8Array | undefined {
  const colour = own.find(({ type, content }) => type === 'colr' && ['prof', 'rICC'].includes(textAt(content, 0, 4)))
  return colour?.content.subarray(4)
}

function describedBy(own: readonly Box[]): PhotoHeader['described'] {
  const colour = own.find(({ type, content }) => type === 'colr' && textAt(content, 0, 4) === 'nclx')
  return colour && byNumbers(numberAt(colour.content, 4, 2), numberAt(colour.content, 6, 2))
}
