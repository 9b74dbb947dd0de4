import { workingSpaceOf, type ColourSpace, type Size } from '@welkinar/core'

/** Spaces as canvases name them (HTML, PredefinedColorSpace). */
const spaces: Readonly<Record<ColourSpace, PredefinedColorSpace>> = { srgb: 'srgb', displayP3: 'display-p3' }

/** How a canvas holds a picture of a scene: in the space that the scene is worked on in, where the screen shows more than sRGB. */
export function canvasSettings(photoId: string): CanvasRenderingContext2DSettings {
  return { colorSpace: matchMedia('(color-gamut: p3)').matches ? spaces[workingSpaceOf(photoId)] : 'srgb' }
}

/** Pixels of a picture of a scene, interleaved RGBA, which the browser converts to what a canvas holds. */
export function imageOf(pixels: Uint8ClampedArray<ArrayBuffer>, { width, height }: Size, photoId: string): ImageData {
  return new ImageData(pixels, width, height, { colorSpace: spaces[workingSpaceOf(photoId)] })
}
