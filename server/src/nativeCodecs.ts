import { bandOfJpegs, FULL_COLOUR_FROM, piecesOf, type Codecs, type DecodedPixels, type DeflateBand } from '@welkinar/core/worker'
import { constants, deflateRawSync } from 'node:zlib'
import sharp from 'sharp'

/** zlib of Node: the bytes are those of its port to JavaScript, in a quarter of the time. */
export const nativeDeflate: DeflateBand = (bytes) =>
  deflateRawSync(bytes, { level: 6, strategy: constants.Z_RLE, finishFlush: constants.Z_FULL_FLUSH })

/** sharp reads no more than so many pixels; the application has its own limit, with its own words. */
const NO_LIMIT = false

/** As in the browser an embedded profile is not applied, and a file that is a little damaged gives what there is. */
async function read(bytes: Uint8Array): Promise<DecodedPixels> {
  const picture = sharp(bytes, { ignoreIcc: true, failOn: 'none', limitInputPixels: NO_LIMIT })
  const deep = (await picture.metadata()).depth === 'ushort'
  const { data, info } = await picture
    .toColourspace(deep ? 'rgb16' : 'srgb')
    .ensureAlpha()
    .raw({ depth: deep ? 'ushort' : 'uchar' })
    .toBuffer({ resolveWithObject: true })
  const { buffer, byteOffset, byteLength } = data
  const pixels = deep ? new Uint16Array(buffer, byteOffset, byteLength / 2) : new Uint8ClampedArray(buffer, byteOffset, byteLength)
  return { width: info.width, height: info.height, data: pixels }
}

/**
 * Codecs of sharp (libvips), several times as fast as those in WebAssembly. A test holds the pixels that they read against theirs.
 * @param others for what is to be the same file everywhere
 */
export const nativeCodecs = (others: Codecs): Codecs => ({
  async decoderFor(format) {
    // libvips does not say all that is wrong with a JPEG.
    if (format === 'jpeg' || format === 'tiff' || format === 'raw' || format === 'heic') return others.decoderFor(format)
    // libheif turns what it decodes.
    return async (bytes) => ({ ...(await read(bytes)), isUpright: format === 'avif' })
  },
  decodeQuickly: (format, bytes) => others.decodeQuickly(format, bytes),
  toSpace: (profile, pixels, space, pulse) => others.toSpace(profile, pixels, space, pulse),
  encodeWhole: (rows, size, options) => others.encodeWhole(rows, size, options),
  async encodeBand(band, options, kernels) {
    // What loses nothing is the same file as that of the browser.
    if (options.format !== 'jpeg') return others.encodeBand(band, options, kernels)
    const { quality } = options
    const pieces = piecesOf(band).map(({ width, height, data }) =>
      sharp(data, { raw: { width, height, channels: 4 } })
        .removeAlpha()
        // Codes made for each piece would not be those of the whole file.
        .jpeg({ quality, chromaSubsampling: quality >= FULL_COLOUR_FROM ? '4:4:4' : '4:2:0', optimiseCoding: false })
        .toBuffer(),
    )
    return bandOfJpegs(await Promise.all(pieces))
  },
})
