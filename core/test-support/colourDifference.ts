import { differenceCiede2000 } from 'culori'

const difference = differenceCiede2000()

export function decodeSrgb(v: number): number {
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4
}

export function encodeSrgb(v: number): number {
  return v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055
}

interface Pixels {
  readonly width: number
  readonly height: number
  readonly pixels: Uint8ClampedArray
}

/** An exactly `factor` times smaller picture by means in linear light, 0-1 a channel, not rounded. */
export function reduceInLinearLight({ width, height, pixels }: Pixels, factor: number): number[][] {
  const table = Array.from({ length: 256 }, (_, code) => decodeSrgb(code / 255))
  const out: number[][] = []
  for (let y = 0; y + factor <= height; y += factor) {
    for (let x = 0; x + factor <= width; x += factor) {
      const sums = [0, 0, 0]
      for (let j = 0; j < factor; j++)
        for (let i = 0; i < factor; i++) for (let c = 0; c < 3; c++) sums[c]! += table[pixels[((y + j) * width + x + i) * 4 + c]!]!
      out.push(sums.map((sum) => encodeSrgb(sum / (factor * factor))))
    }
  }
  return out
}

/** So many pixels of a large picture, evenly spread, are enough for its mean and its percentiles. */
const MOST_COMPARED = 40000

/** Mean and 99th percentile of the CIEDE2000 difference between reduced pixels and a preview. */
export function compareColours(reduced: number[][], preview: Pixels): { mean: number; percentile99: number } {
  const step = Math.max(1, Math.floor(reduced.length / MOST_COMPARED))
  const compared = Array.from({ length: Math.ceil(reduced.length / step) }, (_, k) => k * step)
  const differences = compared.map((i) => {
    const colour = reduced[i]!
    const at = [0, 1, 2].map((c) => preview.pixels[4 * i + c]! / 255)
    return difference({ mode: 'rgb', r: colour[0]!, g: colour[1]!, b: colour[2]! }, { mode: 'rgb', r: at[0]!, g: at[1]!, b: at[2]! })
  })
  differences.sort((a, b) => a - b)
  const mean = differences.reduce((sum, d) => sum + d, 0) / differences.length
  return { mean, percentile99: differences[Math.floor(differences.length * 0.99)]! }
}
