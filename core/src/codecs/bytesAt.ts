/** Bytes of a file as Latin text. */
export function textAt(bytes: Uint8Array, at: number, length: number): string {
  let text = ''
  for (let i = at; i < Math.min(bytes.length, at + length); i++) text += String.fromCharCode(bytes[i] ?? 0)
  return text
}

/** A whole number, its highest byte first. */
export function numberAt(bytes: Uint8Array, at: number, length: number): number {
  let value = 0
  for (let i = 0; i < length; i++) value = value * 256 + (bytes[at + i] ?? 0)
  return value
}

/** A whole number of four bytes, its lowest byte first. */
export function littleAt(bytes: Uint8Array, at: number): number {
  let value = 0
  for (let i = 3; i >= 0; i--) value = value * 256 + (bytes[at + i] ?? 0)
  return value
}
