import type { FileFormat } from '../fileFormat'
import { jpegHead, restartMarker, END } from './jpegSegments'

/** Baseline JPEG, ITU-T T.81. Each part of a band is what lies between two restart markers. */
export const jpegFormat: FileFormat = {
  name: 'JPEG',
  endings: ['jpg', 'jpeg'],
  mediaType: 'image/jpeg',
  hint: 'Much smaller, with a small loss. For showing and sending.',
  hasQuality: true,
  depths: [8],
  join(bands, size) {
    const parts = bands.flatMap((band) => band.parts)
    const between = parts.flatMap((part, index) => (index < parts.length - 1 ? [part, restartMarker(index)] : [part]))
    return new Blob([jpegHead(bands[0]?.head ?? new Uint8Array(), size), ...between, END], { type: 'image/jpeg' })
  },
}
