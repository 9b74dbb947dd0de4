import { textAt } from '../bytesAt'
import { readTiff, tags } from '../tiff/tiffDirectory'
import { soundTurn } from './photoHeader'

/** What stands before the block in a JPEG (CIPA DC-008, 4.7.2). */
export const EXIF_MARK = 'Exif\0\0'

/** A block without that mark, which some writers put before it in other formats too. */
export function withoutExifMark(block: Uint8Array): Uint8Array {
  return textAt(block, 0, EXIF_MARK.length) === EXIF_MARK ? block.subarray(EXIF_MARK.length) : block
}

/** The orientation that an EXIF block says; 1 without one. */
export function turnOfExif(exif: Uint8Array | undefined): number {
  return exif ? soundTurn(readTiff(exif).directories[0]?.value(tags.orientation)) : 1
}
