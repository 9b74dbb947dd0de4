import {
  cmsInfoDescription,
  instantiate,
  TYPE_CMYK_16,
  TYPE_GRAY_16,
  TYPE_Lab_16,
  TYPE_RGB_16,
  TYPE_RGBA_16,
  TYPE_RGBA_8,
  type Lcms,
} from 'lcms-wasm'
import { profileOf, type ColourSpace } from '../../colour/colourSpace'
import type { LoadCodec } from '../codecModules'
import type { DecodedPixels } from '../decodePixels'
import { noPulse, type Pulse } from '../../photo/pulse'

/** What was done with the profile of a picture. */
export type ProfileOutcome =
  /** Its codes are those of the space already. */
  | { readonly is: 'same' }
  /** The codes are new ones, of 16 bits. */
  | { readonly is: 'converted'; readonly name: string; readonly data: Uint16Array }
  /** It is damaged, or of a kind that pictures of red, green and blue do not have; the codes were left. */
  | { readonly is: 'unusable' }

const RELATIVE_COLORIMETRIC = 1
const BLACK_POINT_COMPENSATION = 0x2000
const COPY_ALPHA = 0x04000000
/** Else colours at the border of sRGB are read from a table of few. */
const NO_TABLE = 0x0100
/** Pixels at once. */
const AT_ONCE = 1 << 19

let engine: Promise<Lcms> | undefined

function prepare(load: LoadCodec): Promise<Lcms> {
  engine ??= load('colour').then((module) =>
    instantiate({
      instantiateWasm(imports, receive) {
        const instance = new WebAssembly.Instance(module, imports)
        receive(instance)
        return instance.exports
      },
    }),
  )
  engine.catch(() => (engine = undefined))
  return engine
}

/**
 * Converts interleaved RGBA of 8 or 16 bits from a profile to codes of 16 bits of a space, by Little CMS: relative colorimetric, with black point compensation. What lies outside the
 * space is cut off. Codes that are those of the space already stay as they are.
 * @param data of 16 bits it is converted in place
 * @param target a space, or a profile of red, green and blue
 */
export async function toSpace(
  profile: Uint8Array | undefined,
  { data, model }: Pick<DecodedPixels, 'data' | 'model'>,
  target: ColourSpace | Uint8Array,
  load: LoadCodec,
  pulse: Pulse = noPulse,
): Promise<ProfileOutcome> {
  const lcms = await prepare(load)
  // Lab is what it is without a profile.
  const from = model === 'lab' ? lcms.cmsCreateLab4Profile() : profile && profileIn(lcms, profile)
  if (!from) return { is: 'unusable' }
  const to = target === 'srgb' ? lcms.cmsCreate_sRGBProfile() : profileIn(lcms, typeof target === 'string' ? profileOf(target) : target)
  try {
    const space = lcms.cmsGetColorSpaceASCII(from)
    if (space !== (model === undefined ? 'RGB' : modelSpaces[model]) && !(model === undefined && space === 'GRAY'))
      return { is: 'unusable' }
    const transform: MakeTransform = (fromType, toType) =>
      lcms.cmsCreateTransform(
        from,
        fromType,
        to,
        toType,
        RELATIVE_COLORIMETRIC,
        BLACK_POINT_COMPENSATION | COPY_ALPHA | (fromType === TYPE_RGBA_8 ? 0 : NO_TABLE),
      )
    const done =
      model !== undefined
        ? throughModel(lcms, transform, data, model, pulse)
        : space === 'RGB'
          ? throughColours(lcms, transform, data, pulse)
          : throughGreys(lcms, transform, data)
    return typeof done === 'string' ? { is: done } : { is: 'converted', name: nameOf(lcms, from), data: done }
  } finally {
    lcms.cmsCloseProfile(from)
    lcms.cmsCloseProfile(to)
  }
}

const modelSpaces = { cmyk: 'CMYK', lab: 'Lab' } as const

/** Inks or Lab to red, green and blue. */
function throughModel(
  lcms: Lcms,
  make: MakeTransform,
  data: Uint8ClampedArray | Uint16Array,
  model: 'cmyk' | 'lab',
  pulse: Pulse,
): Uint16Array | 'unusable' {
  const transform = make(model === 'cmyk' ? TYPE_CMYK_16 : TYPE_Lab_16, TYPE_RGB_16)
  if (!transform) return 'unusable'
  const channels = model === 'cmyk' ? 4 : 3
  const converted = new Uint16Array(data.length)
  const isDeep = data instanceof Uint16Array
  for (let from = 0; from < data.length; from += 4 * AT_ONCE) {
    const count = Math.min(AT_ONCE, (data.length - from) / 4)
    const codes = new Uint16Array(channels * count)
    for (let i = 0; i < count; i++)
      for (let k = 0; k < channels; k++) codes[channels * i + k] = codeOf(data[from + 4 * i + k] ?? 0, isDeep, model === 'lab' && k > 0)
    const found = lcms.cmsDoTransform(transform, codes, count)
    for (let i = 0; i < count; i++) {
      for (let k = 0; k < 3; k++) converted[from + 4 * i + k] = found[3 * i + k] ?? 0
      converted[from + 4 * i + 3] = model === 'cmyk' ? 65535 : isDeep ? (data[from + 4 * i + 3] ?? 0) : 257 * (data[from + 4 * i + 3] ?? 0)
    }
    pulse()
  }
  lcms.cmsDeleteTransform(transform)
  return converted
}

/** A code of 16 bits as Little CMS has it: a and b of Lab count 257 to the unit about 0x8080; of 16 bits in a TIFF they count 256 about 0x8000. */
function codeOf(code: number, isDeep: boolean, isOffset: boolean): number {
  if (!isDeep) return 257 * code
  return isOffset ? Math.min(65535, Math.max(0, Math.round(((code - 0x8000) * 257) / 256 + 0x8080))) : code
}

function profileIn(lcms: Lcms, profile: Uint8Array): number {
  return lcms.cmsOpenProfileFromMem(profile, profile.length)
}

type MakeTransform = (fromType: number, toType: number) => number

/** Of 16 bits: less than a code of 8. Profiles of the same space, rounded and adapted by different programs, differ by half a code. */
const SAME = 200

function throughColours(
  lcms: Lcms,
  make: MakeTransform,
  data: Uint8ClampedArray | Uint16Array,
  pulse: Pulse,
): Uint16Array | 'same' | 'unusable' {
  const transform = make(data instanceof Uint16Array ? TYPE_RGBA_16 : TYPE_RGBA_8, TYPE_RGBA_16)
  if (!transform) return 'unusable'
  try {
    const grid = gridOfColours()
    const probe = make(TYPE_RGBA_16, TYPE_RGBA_16)
    const same = lcms.cmsDoTransform(probe, grid, grid.length / 4).every((code, i) => Math.abs(code - (grid[i] ?? 0)) <= SAME)
    lcms.cmsDeleteTransform(probe)
    if (same) return 'same'
    const converted = data instanceof Uint16Array ? data : new Uint16Array(data.length)
    for (let at = 0; at < data.length; at += 4 * AT_ONCE) {
      const part = data.subarray(at, at + 4 * AT_ONCE)
      const codes = part instanceof Uint16Array ? part : new Uint8Array(part.buffer, part.byteOffset, part.length)
      converted.set(lcms.cmsDoTransform(transform, codes, part.length / 4) as unknown as Uint16Array, at)
      pulse()
    }
    return converted
  } finally {
    lcms.cmsDeleteTransform(transform)
  }
}

/** Corners, edges and middles of the cube of colours, and all greys of 8 bits, in 16 bits. */
function gridOfColours(): Uint16Array {
  const steps = [0, 32, 64, 128, 192, 255]
  const colours = steps.flatMap((r) => steps.flatMap((g) => steps.flatMap((b) => [r, g, b, 255])))
  const greys = Array.from({ length: 256 }, (_, code) => [code, code, code, 255]).flat()
  return Uint16Array.from([...colours, ...greys], (code) => 257 * code)
}

/** A grey picture has the same code in all channels: each goes through a table. */
function throughGreys(lcms: Lcms, make: MakeTransform, data: Uint8ClampedArray | Uint16Array): Uint16Array | 'same' | 'unusable' {
  const transform = make(TYPE_GRAY_16, TYPE_RGB_16)
  if (!transform) return 'unusable'
  const most = data instanceof Uint16Array ? 65535 : 255
  const ramp = Uint16Array.from({ length: most + 1 }, (_, code) => code * (65535 / most))
  const through = lcms.cmsDoTransform(transform, ramp, ramp.length)
  lcms.cmsDeleteTransform(transform)
  const table = ramp.map((_, code) => through[3 * code] ?? 0)
  if (table.every((to, code) => Math.abs(to - (ramp[code] ?? 0)) <= SAME)) return 'same'
  const converted = data instanceof Uint16Array ? data : new Uint16Array(data.length)
  for (let i = 0; i < data.length; i++) converted[i] = i % 4 === 3 ? (data[i] ?? 0) * (65535 / most) : (table[data[i] ?? 0] ?? 0)
  return converted
}

function nameOf(lcms: Lcms, profile: number): string {
  return lcms
    .cmsGetProfileInfoASCII(profile, cmsInfoDescription, 'en', 'US')
    .replace(/[\x00-\x1f]/g, '')
    .trim()
    .slice(0, 60)
}
