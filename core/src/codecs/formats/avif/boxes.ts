import { numberAt, textAt } from '../../bytesAt'

/** A picture of a grid is at least so wide, px (ISO/IEC 23000-22, 7.3.11.4.2). */
export const LEAST_SIDE = 64

/** One box of a file (ISO/IEC 14496-12, 4.2). */
export interface Box {
  readonly type: string
  /** All of it, and what it holds. */
  readonly bytes: Uint8Array
  readonly content: Uint8Array
}

/** The boxes that some bytes hold, one behind the other. @throws Error if they do not hold whole boxes */
export function boxesIn(bytes: Uint8Array): readonly Box[] {
  const boxes: Box[] = []
  for (let at = 0; at < bytes.length;) {
    const length = numberAt(bytes, at, 4)
    if (length < 8 || at + length > bytes.length) throw new Error('The boxes of the AVIF file do not fit.')
    const all = bytes.subarray(at, at + length)
    boxes.push({ type: textAt(bytes, at + 4, 4), bytes: all, content: all.subarray(8) })
    at += length
  }
  return boxes
}

/** The first box of a type. @throws Error if there is none */
export function boxOf(boxes: readonly Box[], type: string): Box {
  const found = boxes.find((box) => box.type === type)
  if (!found) throw new Error(`The AVIF file has no box ${type}.`)
  return found
}

/** A box of what is given. */
export function box(type: string, ...parts: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const content = joined(parts)
  return joined([bytesOf(8 + content.length, 4), letters(type), content])
}

/** A box that says its version and flags first. */
export function fullBox(type: string, version: number, flags: number, ...parts: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  return box(type, bytesOf(version, 1), bytesOf(flags, 3), ...parts)
}

/** A whole number, its highest byte first. */
export function bytesOf(value: number, length: number): Uint8Array<ArrayBuffer> {
  return Uint8Array.from({ length }, (_, i) => Math.floor(value / 256 ** (length - 1 - i)) % 256)
}

export function letters(text: string): Uint8Array<ArrayBuffer> {
  return Uint8Array.from(text, (letter) => letter.charCodeAt(0))
}

export function joined(parts: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const all = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0))
  let at = 0
  for (const part of parts) {
    all.set(part, at)
    at += part.length
  }
  return all
}
