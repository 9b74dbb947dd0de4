// What threads need to know of readings: without the schema, which they would load for nothing.

/** Of a photo that has not been read yet. */
export const NOT_READ = 0
/** The ways in which photos have been read; the last is that of now. A scene keeps what an earlier one has read. */
export const READING_METHODS = [NOT_READ, 1, 2, 3, 4, 5, 6, 7] as const
export const READING_METHOD = 7
/** Nearest and farthest distance of a reading, metres; its codes 0-255 are even steps of the logarithm between them. */
export const NEAREST = 1
export const FARTHEST = 20000

/** Base 64 (RFC 4648). */
export function base64Of(bytes: Uint8Array): string {
  let text = ''
  for (const byte of bytes) text += String.fromCharCode(byte)
  return btoa(text)
}

/** The bytes of a text in base 64 (RFC 4648). */
export function bytesFrom(base64: string): Uint8Array {
  return Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0))
}
