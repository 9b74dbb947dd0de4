import { profileOf } from '../../../colour/colourSpace'
import type { FileFormat } from '../fileFormat'
import { webpWithProfile } from './webpContainer'

/** WebP, RFC 9649. It has no parts that stand alone, so it is encoded as a whole. */
export const webpFormat: FileFormat = {
  name: 'WebP',
  endings: ['webp'],
  mediaType: 'image/webp',
  hint: 'Smaller than JPEG at the same loss. For pages of the web.',
  carriesExif: false,
  hasQuality: true,
  depths: [8],
  asWhole: true,
  // 14 bits each (RFC 6386, 9.1).
  limits: { mostWidth: 16383, mostHeight: 16383 },
  async join(bands, size, { space = 'srgb' }) {
    const simple = await new Blob(bands.flatMap(({ parts }) => parts)).arrayBuffer()
    return new Blob([webpWithProfile(new Uint8Array(simple), size, profileOf(space))], { type: 'image/webp' })
  },
}
