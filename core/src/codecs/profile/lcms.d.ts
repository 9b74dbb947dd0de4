declare module 'lcms-wasm' {
  /** Handles of profiles and transforms; 0 is none. */
  type Handle = number

  export interface Lcms {
    cmsOpenProfileFromMem(bytes: Uint8Array, length: number): Handle
    cmsCloseProfile(profile: Handle): void
    cmsCreate_sRGBProfile(): Handle
    /** Lab of D50. */
    cmsCreateLab4Profile(): Handle
    /** 'RGB', 'GRAY', 'CMYK' …; null if it is none of those that it knows. */
    cmsGetColorSpaceASCII(profile: Handle): string | null
    cmsGetProfileInfoASCII(profile: Handle, info: number, language: string, country: string): string
    cmsCreateTransform(from: Handle, fromType: number, to: Handle, toType: number, intent: number, flags: number): Handle
    cmsDeleteTransform(transform: Handle): void
    /** `size` pixels through a transform. */
    cmsDoTransform<T extends Uint8Array | Uint16Array>(transform: Handle, pixels: T, size: number): T
  }

  interface Options {
    instantiateWasm(imports: WebAssembly.Imports, receive: (instance: WebAssembly.Instance) => void): WebAssembly.Exports
  }

  export function instantiate(options: Options): Promise<Lcms>
  export const cmsInfoDescription: number
  export const TYPE_RGBA_8: number
  export const TYPE_RGBA_16: number
  export const TYPE_GRAY_16: number
  export const TYPE_CMYK_16: number
  export const TYPE_Lab_16: number
  export const TYPE_RGB_16: number
}
