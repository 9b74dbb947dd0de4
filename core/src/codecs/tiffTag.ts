const BIG_ENDIAN = 0x4d
/** Bytes of a value of each type (TIFF 6.0, section 2). */
const VALUE_BYTES = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8]

/** The bytes of a tag of the first directory of a TIFF; undefined if it is not there, or lies outside the file. */
export function tiffTag(bytes: Uint8Array, wanted: number): Uint8Array | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const isLittle = bytes[0] !== BIG_ENDIAN
  if (bytes.length < 8) return undefined
  const directory = view.getUint32(4, isLittle)
  if (directory + 2 > bytes.length) return undefined
  const count = Math.min(view.getUint16(directory, isLittle), Math.floor((bytes.length - directory - 2) / 12))
  for (let i = 0; i < count; i++) {
    const entry = directory + 2 + 12 * i
    if (view.getUint16(entry, isLittle) !== wanted) continue
    const length = (VALUE_BYTES[view.getUint16(entry + 2, isLittle)] ?? 0) * view.getUint32(entry + 4, isLittle)
    const from = length > 4 ? view.getUint32(entry + 8, isLittle) : entry + 8
    return length > 0 && from + length <= bytes.length ? bytes.subarray(from, from + length) : undefined
  }
  return undefined
}
