import { cmsInfoDescription, instantiate, TYPE_GRAY_16, TYPE_RGB_16, TYPE_RGBA_16, TYPE_RGBA_8, type Lcms } from 'lcms-wasm'
import { profileOf, type ColourSpace } from '../../colour/colourSpace'
import type { LoadCodec } from '../codecModules'

/** What was done with the profile of a picture. */
export type ProfileOutcome =
  /** Its codes are those of the space already. */
  | { readonly is: 'same' }
  | { readonly is: 'converted'; readonly name: string }
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
 * Converts interleaved RGBA of 8 or 16 bits from a profile to a space, in place, by Little CMS: relative colorimetric, with black point compensation. What lies outside the
 * space is cut off.
 */
export async function toSpace(
  profile: Uint8Array,
  data: Uint8ClampedArray | Uint16Array,
  target: ColourSpace,
  load: LoadCodec,
): Promise<ProfileOutcome> {
  const lcms = await prepare(load)
  const from = profileIn(lcms, profile)
  if (!from) return { is: 'unusable' }
  const to = target === 'srgb' ? lcms.cmsCreate_sRGBProfile() : profileIn(lcms, profileOf(target))
  try {
    const space = lcms.cmsGetColorSpaceASCII(from)
    if (space !== 'RGB' && space !== 'GRAY') return { is: 'unusable' }
    const transform = (fromType: number, toType: number): number =>
      lcms.cmsCreateTransform(
        from,
        fromType,
        to,
        toType,
        RELATIVE_COLORIMETRIC,
        BLACK_POINT_COMPENSATION | COPY_ALPHA | (fromType === TYPE_RGBA_8 ? 0 : NO_TABLE),
      )
    const done = space === 'RGB' ? throughColours(lcms, transform, data) : throughGreys(lcms, transform, data)
    return done === 'converted' ? { is: done, name: nameOf(lcms, from) } : { is: done }
  } finally {
    lcms.cmsCloseProfile(from)
    lcms.cmsCloseProfile(to)
  }
}

function profileIn(lcms: Lcms, profile: Uint8Array): number {
  return lcms.cmsOpenProfileFromMem(profile, profile.length)
}

type MakeTransform = (fromType: number, toType: number) => number

function throughColours(lcms: Lcms, make: MakeTransform, data: Uint8ClampedArray | Uint16Array): ProfileOutcome['is'] {
  const type = data instanceof Uint16Array ? TYPE_RGBA_16 : TYPE_RGBA_8
  const transform = make(type, type)
  if (!transform) return 'unusable'
  try {
    const grid = gridOfColours()
    const probe = make(TYPE_RGBA_8, TYPE_RGBA_8)
    const same = lcms.cmsDoTransform(probe, grid, grid.length / 4).every((code, i) => Math.abs(code - (grid[i] ?? 0)) <= 1)
    lcms.cmsDeleteTransform(probe)
    if (same) return 'same'
    for (let at = 0; at < data.length; at += 4 * AT_ONCE) {
      const part = data.subarray(at, at + 4 * AT_ONCE)
      const codes = part instanceof Uint16Array ? part : new Uint8Array(part)
      part.set(lcms.cmsDoTransform(transform, codes, part.length / 4))
    }
    return 'converted'
  } finally {
    lcms.cmsDeleteTransform(transform)
  }
}

/** Corners, edges and middles of the cube of colours. */
function gridOfColours(): Uint8Array {
  const steps = [0, 32, 64, 128, 192, 255]
  return new Uint8Array(steps.flatMap((r) => steps.flatMap((g) => steps.flatMap((b) => [r, g, b, 255]))))
}

/** A grey picture has the same code in all channels: each goes through a table. */
function throughGreys(lcms: Lcms, make: MakeTransform, data: Uint8ClampedArray | Uint16Array): ProfileOutcome['is'] {
  const transform = make(TYPE_GRAY_16, TYPE_RGB_16)
  if (!transform) return 'unusable'
  const most = data instanceof Uint16Array ? 65535 : 255
  const ramp = Uint16Array.from({ length: most + 1 }, (_, code) => code * (65535 / most))
  const through = lcms.cmsDoTransform(transform, ramp, ramp.length)
  lcms.cmsDeleteTransform(transform)
  const table = ramp.map((_, code) => Math.round(((through[3 * code] ?? 0) * most) / 65535))
  if (table.every((to, code) => Math.abs(to - code) <= most / 255)) return 'same'
  for (let i = 0; i < data.length; i++) if (i % 4 !== 3) data[i] = table[data[i] ?? 0] ?? 0
  return 'converted'
}

function nameOf(lcms: Lcms, profile: number): string {
  return lcms
    .cmsGetProfileInfoASCII(profile, cmsInfoDescription, 'en', 'US')
    .replace(/[\x00-\x1f]/g, '')
    .trim()
    .slice(0, 60)
}
