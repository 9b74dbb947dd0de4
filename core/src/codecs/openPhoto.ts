import { colourSpaces, linearFromWidest, widestProfile, type ColourSpace } from '../colour/colourSpace'
import { encodedOf, linearOf } from '../colour/hex'
import { UserProblem } from '../model/userProblem'
import { sharedBuffer, type PhotoLevel } from '../photo/photoData'
import type { Codecs } from './codecs'
import type { DecodedPixels } from './decodePixels'
import type { PhotoHeader } from './header/photoHeader'
import { readHeader } from './header/readHeader'
import { oriented } from './orientation'
import { noPulse, SECONDS_PER_MEGAPIXEL, type Pulse } from '../photo/pulse'
import { describedProfile } from './profile/describedProfile'
import type { ProfileOutcome } from './profile/toSpace'
import { sniffFormat, type PhotoFormat } from './sniffFormat'

/** So long a raw file may take to be developed on a slow machine. */
const RAW_SECONDS = 120
const OF_INKS = 'is a CMYK picture made for printing; save it as RGB (sRGB) and open that.'

/** Largest photo that is opened at full size, and largest that is opened at all. */
export const LARGEST_MEGAPIXELS = 60
const MOST_MEGAPIXELS = 240
const LEAST_SIDE = 8

/** The photo is larger than the limit; it can be opened reduced. */
export class TooLargeProblem extends UserProblem {
  constructor(fileName: string, width: number, height: number) {
    const megapixels = Math.round((width * height) / 1e6)
    super(`“${fileName}” has ${megapixels} megapixels (${width} × ${height}); up to ${LARGEST_MEGAPIXELS} can be opened at full size.`)
  }
}

export interface FullPhoto {
  readonly full: PhotoLevel
  /** How much is there of a picture that was cut out, 0-1 in linear light; `full` is then what it gives off, on black. */
  readonly cover?: PhotoLevel
  /** Whether parts of it are transparent, to whatever part. */
  readonly transparent: boolean
  /** Whether it has colours that were cut off at the border of sRGB. */
  readonly wide: boolean
  /** What the person should know about how the file was read. */
  readonly notices: readonly string[]
}

export interface OpenOptions {
  /** Decode beyond the limit; the caller then reduces it. */
  readonly allowLarge?: boolean
  /** Convert its codes from the profile that it carries to this space; without one they are taken as they are. */
  readonly space?: ColourSpace | undefined
  /** Transparent parts stay so. */
  readonly cutOut?: boolean
  readonly pulse?: Pulse
}

/**
 * Decodes a photo file to its full-size level, orientation applied, transparency laid on white unless it is cut out.
 * @throws UserProblem naming the file and the reason; TooLargeProblem beyond the limit
 */
export async function openPhoto(
  bytes: Uint8Array,
  fileName: string,
  codecs: Pick<Codecs, 'decoderFor' | 'toSpace'>,
  { allowLarge = false, space, cutOut = false, pulse = noPulse }: OpenOptions = {},
): Promise<FullPhoto> {
  const sniffed = sniffFormat(bytes, fileName)
  if ('not' in sniffed) throw new UserProblem(`“${fileName}” cannot be opened: it is ${sniffed.not}.`)
  const { format } = sniffed
  pulse()
  const header = readHeader(bytes, format)
  if (format !== 'raw') {
    checkHeader(header, fileName)
    checkSize(header, fileName, allowLarge)
    pulse(SECONDS_PER_MEGAPIXEL * ((header.width * header.height) / 1e6))
  } else pulse(RAW_SECONDS)
  const bare = await decodeOrExplain(bytes, fileName, format, codecs, space, pulse)
  pulse()
  checkSize(bare, fileName, allowLarge)
  const notices = besidesIt(header, bare).map((what) => `“${fileName}” ${what}`)
  if (space && header.described?.isHdr)
    notices.push(
      `“${fileName}” is made for displays far brighter than white; its tones were taken as those of ${colourSpaces[space].label}.`,
    )
  const { model } = bare
  // Inks and Lab have no codes that could be taken as they are.
  const target = space ?? (model && 'srgb')
  const profile = target && (header.profile ?? describedProfile(header.described))
  const isDescribed = profile !== undefined || model === 'lab'
  const wide = space === 'srgb' && (isDescribed ? await isWide(profile, bare, codecs) : format === 'raw' && isCutOff(bare))
  const converted = target && isDescribed ? await codecs.toSpace(profile, bare, target, pulse) : undefined
  if (model && converted?.is !== 'converted') throw new UserProblem(`“${fileName}” ${OF_INKS}`)
  if (converted && target) notices.push(...inWords(converted, fileName, target))
  const decoded = converted?.is === 'converted' ? { ...bare, data: converted.data, model: undefined } : bare
  pulse()
  const orientation = bare.isUpright ? 1 : header.turn
  const mayHaveCover = format !== 'jpeg' && format !== 'raw'
  if (cutOut && mayHaveCover) {
    const { width, height } = decoded
    const { data, transparent } = takeCover(decoded.data)
    return { full: toLevel(decoded, orientation), cover: toLevel({ width, height, data }, orientation), transparent, wide, notices }
  }
  const transparent = mayHaveCover && layOnWhite(decoded.data)
  if (transparent) notices.push(`“${fileName}” has transparent parts; they were laid on white.`)
  return { full: toLevel(decoded, orientation), transparent, wide, notices }
}

/** What the person should know about the colours of a photo. */
function inWords(outcome: ProfileOutcome, fileName: string, space: ColourSpace): string[] {
  const { label } = colourSpaces[space]
  if (outcome.is === 'unusable') return [`“${fileName}” has a colour profile that cannot be used; its colours were taken as ${label}.`]
  const from = outcome.is === 'converted' ? `were converted from ${outcome.name || 'its profile'} to` : 'are those of'
  return outcome.is === 'converted' || space !== 'srgb' ? [`The colours of “${fileName}” ${from} ${label}.`] : []
}

/** Of so many pixels it is looked whether sRGB has their colours; of so many it may lack them, by so much linear light. */
const SAMPLES = 65536
const FEW_OUTSIDE = 1 / 2000
const OUTSIDE = 0.003

/** A channel of a saturated colour that a space does not have is 0, with another above this, of 1: deep shadows may be 0 by themselves. */
const CLEARLY_LIT = 0.25

/** Whether a raw file that was developed to sRGB has more than a few colours that were cut off there. */
function isCutOff({ data }: DecodedPixels): boolean {
  const least = CLEARLY_LIT * (data instanceof Uint16Array ? 65535 : 255)
  const step = Math.ceil(data.length / 4 / SAMPLES)
  let [outside, count] = [0, 0]
  for (let i = 0; i < data.length; i += 4 * step) {
    const [red = 0, green = 0, blue = 0] = data.subarray(i, i + 3)
    if (Math.min(red, green, blue) === 0 && Math.max(red, green, blue) > least) outside++
    count++
  }
  return outside > FEW_OUTSIDE * count
}

/** Whether a photo has more than a few colours that sRGB has not: by what its profile says before anything is cut off. */
async function isWide(profile: Uint8Array | undefined, { data, model }: DecodedPixels, codecs: Pick<Codecs, 'toSpace'>): Promise<boolean> {
  const step = Math.ceil(data.length / 4 / SAMPLES)
  const count = Math.floor(data.length / 4 / step)
  const deep = data instanceof Uint16Array
  // In 16 bits, or rounding would look like colours beyond the border; Lab has codes of its own.
  const isExpanded = !deep && model !== 'lab'
  const sample = deep || isExpanded ? new Uint16Array(4 * count) : new Uint8ClampedArray(4 * count)
  for (let i = 0; i < count; i++) for (let k = 0; k < 4; k++) sample[4 * i + k] = (data[4 * i * step + k] ?? 0) * (isExpanded ? 257 : 1)
  const found = await codecs.toSpace(profile, { data: sample, model }, widestProfile())
  if (found.is !== 'converted') return false
  let outside = 0
  for (let i = 0; i < found.data.length; i += 4) {
    const [red = 0, green = 0, blue = 0] = [0, 1, 2].map((k) => (found.data[i + k] ?? 0) / 65535)
    if (linearFromWidest([red, green, blue]).some((value) => value < -OUTSIDE || value > 1 + OUTSIDE)) outside++
  }
  return outside > FEW_OUTSIDE * count
}

function checkHeader({ width, height, unknownKind, isOfInks, isCutShort, isSound }: PhotoHeader, fileName: string): void {
  if (unknownKind)
    throw new UserProblem(
      `“${fileName}” is ${unknownKind}, which cannot be read here; save a single picture of it as a usual JPEG or PNG, and open that.`,
    )
  if (isOfInks) throw new UserProblem(`“${fileName}” ${OF_INKS}`)
  if (isCutShort) throw new UserProblem(`“${fileName}” is damaged: the file is cut short. Copy it again from where it came.`)
  if (!isSound) throw new UserProblem(`“${fileName}” is damaged: its checksums do not match. Copy it again from where it came.`)
  if (!(width > 0 && height > 0)) throw new UserProblem(`“${fileName}” is damaged: its header cannot be read.`)
}

function checkSize({ width, height }: { width: number; height: number }, fileName: string, allowLarge: boolean): void {
  if (width < LEAST_SIDE || height < LEAST_SIDE) {
    const found = `it is ${width} × ${height} px, and at least ${LEAST_SIDE} × ${LEAST_SIDE} are needed`
    throw new UserProblem(`“${fileName}” is too small: ${found}.`)
  }
  if (width * height > MOST_MEGAPIXELS * 1e6) {
    const size = `${Math.round((width * height) / 1e6)} megapixels (${width} × ${height})`
    throw new UserProblem(`“${fileName}” has ${size}; at most ${MOST_MEGAPIXELS} can be opened. Save it smaller and open that.`)
  }
  if (width * height > LARGEST_MEGAPIXELS * 1e6 && !allowLarge) throw new TooLargeProblem(fileName, width, height)
}

async function decodeOrExplain(
  bytes: Uint8Array,
  fileName: string,
  format: PhotoFormat,
  codecs: Pick<Codecs, 'decoderFor'>,
  space: ColourSpace | undefined,
  pulse: Pulse,
): Promise<DecodedPixels> {
  const decode = await codecs.decoderFor(format)
  try {
    return await decode(bytes, space, pulse)
  } catch (error) {
    if (error instanceof UserProblem) throw new UserProblem(`“${fileName}” cannot be opened: ${error.message}`)
    if (isOutOfMemory(error) || isNotLoaded(error)) throw error
    throw new UserProblem(`“${fileName}” is damaged: its ${format.toUpperCase()} data cannot be decoded.`)
  }
}

/** A file is not damaged because there is no room for it: the thread is replaced, and it is tried once more. */
function isOutOfMemory(error: unknown): boolean {
  return error instanceof RangeError && /memory|allocation|array (buffer )?length/i.test(error.message)
}

/** Code that loads late did not come. */
function isNotLoaded(error: unknown): boolean {
  return error instanceof TypeError && /module script|dynamically imported module/i.test(error.message)
}

/** What the person should know about a file as it was found, in words behind its name. */
function besidesIt({ isAnimated, pages }: PhotoHeader, { isDamaged }: DecodedPixels): string[] {
  return [
    ...(isDamaged ? ['is damaged in places: what could be read of it is shown. Look it over, or copy it again from where it came.'] : []),
    ...(isAnimated ? ['is an animation; its first picture was opened.'] : []),
    ...(pages > 1 ? [`has ${pages} pictures; the first was opened.`] : []),
  ]
}

/** Lays transparent pixels on white, in place. Returns whether there were any. */
function layOnWhite(data: Uint8ClampedArray | Uint16Array): boolean {
  const most = data instanceof Uint16Array ? 65535 : 255
  let found = false
  for (let i = 3; i < data.length; i += 4) {
    const alpha = data[i] ?? most
    if (alpha === most) continue
    found = true
    for (let channel = i - 3; channel < i; channel++) {
      data[channel] = Math.round(((data[channel] ?? 0) * alpha + most * (most - alpha)) / most)
    }
    data[i] = most
  }
  return found
}

/** Steps of linear light from 0 to 1 for which tones are known: in the blacks a twentieth of an 8-bit code. */
const STEPS = 65535

/**
 * Takes out of a picture how much of it is there, as grey tones of as much linear light; what stays in its place is what it then gives off, on black. Both may be reduced and
 * smoothed as light is, and divided afterwards ("premultiplied" colours: Porter and Duff 1984, "Compositing digital images").
 */
function takeCover(data: Uint8ClampedArray | Uint16Array): {
  readonly data: Uint8ClampedArray | Uint16Array
  readonly transparent: boolean
} {
  const sixteen = data instanceof Uint16Array
  const most = sixteen ? 65535 : 255
  const cover = sixteen ? new Uint16Array(data.length) : new Uint8ClampedArray(data.length)
  const linear = Float32Array.from({ length: most + 1 }, (_, code) => linearOf([code / most, 0, 0])[0])
  const codes = Uint16Array.from({ length: STEPS + 1 }, (_, step) => Math.round(most * encodedOf(step / STEPS)))
  let transparent = false
  for (let i = 0; i < data.length; i += 4) {
    const part = (data[i + 3] ?? most) / most
    cover.fill(codes[Math.round(STEPS * part)] ?? most, i, i + 3)
    cover[i + 3] = most
    if (part === 1) continue
    transparent = true
    for (let k = i; k < i + 3; k++) data[k] = codes[Math.round(STEPS * part * (linear[data[k] ?? 0] ?? 0))] ?? 0
    data[i + 3] = most
  }
  return { data: cover, transparent }
}

function toLevel(decoded: DecodedPixels, orientation: number): PhotoLevel {
  const { width, height, data } = decoded
  if (data instanceof Uint16Array) return toLevel16(width, height, data, orientation)
  const words = new Uint32Array(data.buffer, data.byteOffset, width * height)
  const seen = oriented({ width, height, pixels: words }, orientation)
  // Pixels that threads can share already are not copied.
  const shared = typeof SharedArrayBuffer !== 'undefined' && seen.pixels.buffer instanceof SharedArrayBuffer
  const pixels = shared ? seen.pixels.buffer : sharedBuffer(width * height * 4)
  if (!shared) new Uint32Array(pixels).set(seen.pixels)
  return { width: seen.width, height: seen.height, format: 'rgba8', pixels }
}

function toLevel16(width: number, height: number, data: Uint16Array, orientation: number): PhotoLevel {
  const count = width * height
  const pixels = sharedBuffer(count * 6)
  let size = { width, height }
  for (let channel = 0; channel < 3; channel++) {
    const plane = new Uint16Array(count)
    for (let i = 0; i < count; i++) plane[i] = data[4 * i + channel] ?? 0
    const seen = oriented({ width, height, pixels: plane }, orientation)
    new Uint16Array(pixels, channel * count * 2, count).set(seen.pixels)
    size = { width: seen.width, height: seen.height }
  }
  return { ...size, format: 'rgb16', pixels }
}
