import { exp2, splat, storeSome } from './math'

/** Adds the glow of a light: strength e^(-d² / (2 sigma²)) with d the distance from (px, py), photo px. */
export function addGlow(
  plane: usize, x0: i32, y0: i32, width: i32, height: i32, pitchX: f32, pitchY: f32, px: f32, py: f32, sigma: f32, strength: f32,
): void {
  // e^(-d² / (2 sigma²)) = 2^(-d² log2(e) / (2 sigma²)).
  const k = splat(<f32>(-0.5 * 1.4426950408889634) / (sigma * sigma))
  for (let y = 0; y < height; y++) {
    const dy = (<f32>(y0 + y) + 0.5) * pitchY - py
    const row = plane + ((<usize>(y * width)) << 2)
    for (let x = 0; x < width; x += 4) {
      const columns = f32x4.convert_i32x4_s(i32x4.add(i32x4.splat(x0 + x), i32x4(0, 1, 2, 3)))
      const dx = f32x4.sub(f32x4.mul(f32x4.add(columns, splat(0.5)), splat(pitchX)), splat(px))
      const glow = exp2(f32x4.mul(f32x4.add(f32x4.mul(dx, dx), splat(dy * dy)), k))
      const at = row + ((<usize>x) << 2)
      const sum = f32x4.add(v128.load(at), f32x4.mul(splat(strength), glow))
      if (x + 4 <= width) v128.store(at, sum)
      else storeSome(at, sum, width - x)
    }
  }
}

/**
 * A field as bright as the air it is in is lit: times 1 + lit (g - 1) with g = 0.2 + 1.5 b / (b + 0.15), b the light there. Dark air leaves a fifth, air
 * as bright as a mid-grey about all, the glow of a lamp half as much again. `squared` for a plane of variances.
 */
export function litPlane(field: usize, light: usize, count: i32, lit: f32, squared: bool, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const b = f32x4.pmax(splat(0), v128.load(light + i))
    const g = f32x4.add(splat(0.2), f32x4.mul(splat(1.5), f32x4.div(b, f32x4.add(b, splat(0.15)))))
    const factor = f32x4.add(splat(1), f32x4.mul(splat(lit), f32x4.sub(g, splat(1))))
    v128.store(out + i, f32x4.mul(v128.load(field + i), squared ? f32x4.mul(factor, factor) : factor))
  }
}

/**
 * Colour of a channel where lights of colours of their own lie over a glow: (saturation sum + (1 - saturation) mean + glow between) / (mean + glow), `sum` being the lights
 * times their colour. Linear light; where there is neither, the colour of the glow. `out` may be `sum`.
 */
export function ownColour(sum: usize, mean: usize, glow: usize, between: f32, saturation: f32, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const m = v128.load(mean + i)
    const g = f32x4.add(v128.load(glow + i), splat(1e-6))
    const own = f32x4.add(f32x4.mul(splat(saturation), v128.load(sum + i)), f32x4.mul(splat(1 - saturation), m))
    v128.store(out + i, f32x4.div(f32x4.add(own, f32x4.mul(g, splat(between))), f32x4.add(m, g)))
  }
}

/**
 * One channel of a colour (linear) in coloured light: times 1 + part (c - 1), c the light's channel over its luminance, between 0.4 and 2.2. Where there is no
 * light to speak of the colour stays. `out` may be `colour`.
 */
export function tintPlane(colour: usize, channel: usize, luminance: usize, part: f32, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const y = v128.load(luminance + i)
    // Under a hundredth of white there is too little to take a colour from.
    const ratio = f32x4.div(f32x4.add(v128.load(channel + i), splat(0.01)), f32x4.add(y, splat(0.01)))
    const c = f32x4.pmin(splat(2.2), f32x4.pmax(splat(0.4), ratio))
    const factor = f32x4.add(splat(1), f32x4.mul(splat(part), f32x4.sub(c, splat(1))))
    v128.store(out + i, f32x4.mul(v128.load(colour + i), factor))
  }
}

/** Luminance of linear planes, ITU-R BT.709. */
export function luminancePlane(red: usize, green: usize, blue: usize, count: i32, out: usize): void {
  const bytes = (<usize>count) << 2
  for (let i: usize = 0; i < bytes; i += 16) {
    const sum = f32x4.add(f32x4.mul(splat(0.2126), v128.load(red + i)), f32x4.mul(splat(0.7152), v128.load(green + i)))
    v128.store(out + i, f32x4.add(sum, f32x4.mul(splat(0.0722), v128.load(blue + i))))
  }
}
