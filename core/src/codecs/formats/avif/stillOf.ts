import { numberAt } from '../../bytesAt'
import { boxesIn, boxOf, joined } from './boxes'

/** What a grid needs of one of its pictures. */
export interface Still {
  /** The boxes that say how it was encoded, av1C, and what its codes mean, colr; as they stand in the file. */
  readonly config: Uint8Array
  readonly colour: Uint8Array
  /** The picture: an AV1 temporal unit. */
  readonly data: Uint8Array<ArrayBuffer>
}

/** The picture in an AVIF file of one (AV1 Image File Format 1.1). @throws Error if the file is not like that */
export function stillOf(file: Uint8Array): Still {
  const all = boxesIn(file)
  const meta = boxesIn(boxOf(all, 'meta').content.subarray(4))
  const primary = numberAt(boxOf(meta, 'pitm').content, 4, 2)
  const properties = boxesIn(boxOf(boxesIn(boxOf(meta, 'iprp').content), 'ipco').content)
  return {
    config: boxOf(properties, 'av1C').bytes,
    colour: boxOf(properties, 'colr').bytes,
    data: joined(extentsOf(boxOf(meta, 'iloc').content, primary).map(([from, length]) => file.subarray(from, from + length))),
  }
}

/** Where the bytes of an item lie in the file (ISO/IEC 14496-12, 8.11.3), versions 0 and 1. */
function extentsOf(iloc: Uint8Array, item: number): readonly (readonly [from: number, length: number])[] {
  const version = numberAt(iloc, 0, 1)
  const [offsetSize, lengthSize, baseSize] = [(iloc[4] ?? 0) >> 4, (iloc[4] ?? 0) & 15, (iloc[5] ?? 0) >> 4]
  const count = numberAt(iloc, 6, 2)
  let at = 8
  const next = (length: number): number => {
    at += length
    return numberAt(iloc, at - length, length)
  }
  for (let k = 0; k < count; k++) {
    const id = next(2)
    if (version === 1) next(2)
    next(2)
    const base = next(baseSize)
    const extents = Array.from({ length: next(2) }, () => {
      const from = base + next(offsetSize)
      return [from, next(lengthSize)] as const
    })
    if (id === item) return extents
  }
  throw new Error('The AVIF file does not say where its picture lies.')
}
