/** Pixels of any kind, one entry of the array a pixel. */
export interface PixelGrid<T extends Uint32Array | Uint16Array> {
  readonly width: number
  readonly height: number
  readonly pixels: T
}

/**
 * The picture as it should be seen: EXIF orientation undone.
 * @param orientation 1-8 of the Exif standard (CIPA DC-008, tag 0x0112)
 */
export function oriented<T extends Uint32Array | Uint16Array>(picture: PixelGrid<T>, orientation: number): PixelGrid<T> {
  if (orientation === 1) return picture
  const { width, height, pixels } = picture
  const swapped = orientation >= 5
  const mirrorX = [2, 3, 7, 8].includes(orientation)
  const mirrorY = [3, 4, 6, 7].includes(orientation)
  const outWidth = swapped ? height : width
  const outHeight = swapped ? width : height
  const out = pixels.slice() as T
  for (let y = 0; y < outHeight; y++) {
    for (let x = 0; x < outWidth; x++) {
      const u = swapped ? y : x
      const v = swapped ? x : y
      out[y * outWidth + x] = pixels[(mirrorY ? height - 1 - v : v) * width + (mirrorX ? width - 1 - u : u)] ?? 0
    }
  }
  return { width: outWidth, height: outHeight, pixels: out }
}
