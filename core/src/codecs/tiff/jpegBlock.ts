import { UserProblem } from '../../model/userProblem'
import { joinBytes } from '../joinBytes'
import type { DecodedPixels } from '../decodePixels'
import type { DecodeJpeg } from './decodeTiff'
import { tags, type TiffDirectory } from './tiffDirectory'

const RGB = 2
const START = Uint8Array.of(0xff, 0xd8)
/** The five letters that application segment 14 begins with (ITU-T T.872, 6.5.3). */
const MARK = [0x41, 0x64, 0x6f, 0x62, 0x65]
/** That segment: it says how colours are coded, as they are or as luma and differences. */
const colourMark = (transform: 0 | 1): Uint8Array => Uint8Array.of(0xff, 0xee, 0, 14, ...MARK, 0, 100, 0, 0, 0, 0, transform)

/**
 * A strip or tile that is a JPEG of its own, whose tables may stand in the directory (TIFF Technical Note 2).
 * @throws UserProblem for one of inks
 */
export async function decodedJpegBlock(page: TiffDirectory, data: Uint8Array, decodeJpeg: DecodeJpeg): Promise<DecodedPixels> {
  const interpretation = page.value(tags.photometric)
  if ((page.value(tags.samples) ?? 1) === 4)
    throw new UserProblem('it is a JPEG of inks made for printing; save it as RGB (sRGB) and open that.')
  const tables = page.bytes(tags.jpegTables)
  // Without their start and their end.
  const between = tables ? tables.subarray(2, tables.length - 2) : new Uint8Array()
  return decodeJpeg(joinBytes([START, colourMark(interpretation === RGB ? 0 : 1), between, data.subarray(2)]))
}
