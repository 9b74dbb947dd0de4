// Planes live in this module's own memory. Every block carries slack behind it, so that loops over
// four pixels at a time may run past the end of a plane without a scalar tail.

const SLACK: usize = 128

/** Address of a new block of `bytes` bytes, 16-byte aligned, contents undefined. */
export function allocate(bytes: usize): usize {
  return heap.alloc(bytes + SLACK)
}

/** Gives back a block from `allocate`. */
export function release(address: usize): void {
  heap.free(address)
}

/** Writes `value` into `count` floats. */
export function fill(address: usize, count: i32, value: f32): void {
  const v = f32x4.splat(value)
  const end = address + ((<usize>count) << 2)
  for (let p = address; p < end; p += 16) v128.store(p, v)
}

/** Copies a rectangle of floats out of a plane, repeating the border of `src` outside it. (x, y) is where the first pixel of `dst` lies in `src`. */
export function copyExtended(src: usize, srcWidth: i32, srcHeight: i32, x: i32, y: i32, dst: usize, width: i32, height: i32): void {
  const left = min(max(-x, 0), width)
  const right = min(max(x + width - srcWidth, 0), width)
  const inner = width - left - right
  for (let row = 0; row < height; row++) {
    const from = src + ((<usize>(min(max(y + row, 0), srcHeight - 1) * srcWidth)) << 2)
    const to = dst + ((<usize>(row * width)) << 2)
    if (left > 0) {
      const v = load<f32>(from)
      for (let i = 0; i < left; i++) store<f32>(to + ((<usize>i) << 2), v)
    }
    if (inner > 0) memory.copy(to + ((<usize>left) << 2), from + ((<usize>(x + left)) << 2), (<usize>inner) << 2)
    if (right > 0) {
      const v = load<f32>(from + ((<usize>(srcWidth - 1)) << 2))
      for (let i = width - right; i < width; i++) store<f32>(to + ((<usize>i) << 2), v)
    }
  }
}

/** Copies a rectangle of `width` by `height` floats from (x, y) of one plane to (toX, toY) of another; both hold it. */
export function copyPart(
  src: usize, srcWidth: i32, x: i32, y: i32, dst: usize, dstWidth: i32, toX: i32, toY: i32, width: i32, height: i32,
): void {
  for (let row = 0; row < height; row++) {
    const from = src + ((<usize>((y + row) * srcWidth + x)) << 2)
    memory.copy(dst + ((<usize>((toY + row) * dstWidth + toX)) << 2), from, (<usize>width) << 2)
  }
}

/** Raises what is below 0 to 0 in `count` floats. */
export function atLeastZero(address: usize, count: i32): void {
  const end = address + ((<usize>count) << 2)
  for (let p = address; p < end; p += 16) v128.store(p, f32x4.pmax(v128.load(p), f32x4.splat(0)))
}
