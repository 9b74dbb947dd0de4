import { profileOf } from '../../../colour/colourSpace'
import type { FileFormat } from '../fileFormat'
import { exifSegment, jpegHead, MOST_EXIF, profileSegment, restartMarker, END } from './jpegSegments'

/** Baseline JPEG, ITU-T T.81. Each part of a band is what lies between two restart markers. */
export const jpegFormat: FileFormat = {
  name: 'JPEG',
  endings: ['jpg', 'jpeg'],
  mediaType: 'image/jpeg',
  hint: 'Much smaller, with a small loss. For showing and sending.',
  carriesExif: true,
  hasQuality: true,
  depths: [8],
  // 16 bits each (ITU-T T.81, B.2.2); an EXIF block stands in one segment.
  limits: { mostWidth: 65535, mostHeight: 65535, mostExif: MOST_EXIF },
  join(bands, size, { exif, space = 'srgb' }) {
    const parts = bands.flatMap((band) => band.parts)
    const between = parts.flatMap((part, index) => (index < parts.length - 1 ? [part, restartMarker(index)] : [part]))
    return new Blob([...headParts(jpegHead(bands[0]?.head ?? new Uint8Array(), size), exif, profileOf(space)), ...between, END], {
      type: 'image/jpeg',
    })
  },
}

/** Start of image. */
const START = 2

/** EXIF stands before all else (CIPA DC-008, 4.7.2). */
function headParts(head: Uint8Array<ArrayBuffer>, exif: Uint8Array | undefined, profile: Uint8Array): Uint8Array<ArrayBuffer>[] {
  const segment = exif && exifSegment(exif)
  return [head.subarray(0, START), ...(segment ? [segment] : []), profileSegment(profile), head.subarray(START)]
}
