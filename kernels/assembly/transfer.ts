import { decode, encode } from './math'

/** Encoded values of a plane in linear light (IEC 61966-2-1). `src` and `dst` may be the same. */
export function encodePlane(src: usize, dst: usize, count: i32): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) v128.store(dst + i, encode(v128.load(src + i)))
}

/** Linear light of a plane of encoded values (IEC 61966-2-1). `src` and `dst` may be the same. */
export function decodePlane(src: usize, dst: usize, count: i32): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) v128.store(dst + i, decode(v128.load(src + i)))
}
