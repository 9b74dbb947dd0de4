import { describe, expect, it } from 'vitest'
import { exifProblem, sizeProblem } from './limits'
import { exportFormats } from './registry'

describe('what a format can hold', () => {
  // ITU-T T.81, B.2.2; RFC 6386, 9.1; ISO/IEC 23008-12, 6.6.2.3.2; TIFF 6.0, section 2.
  it.each([
    ['jpeg', 8, 16, 65535, undefined],
    ['jpeg', 8, 16, 70_000, 'A JPEG file is at most 65535 px wide and high; this one would be 16 × 70000.'],
    ['jpeg', 8, 65_536, 8, /65536 × 8/],
    ['webp', 8, 16_384, 8, 'A WebP file is at most 16383 px wide and high; this one would be 16384 × 8.'],
    ['avif', 8, 8, 131_072, undefined],
    ['avif', 8, 8, 131_073, 'An AVIF file is at most 32768 px wide and 131072 px high; this one would be 8 × 131073.'],
    ['avif', 8, 70_000, 16, /70000 × 16/],
    ['png', 16, 200_000, 16, undefined],
    ['tiff', 16, 30_000, 20_000, undefined],
    ['tiff', 16, 30_000, 30_000, 'A TIFF file is at most 4 GB large; this one could be 5.4 GB.'],
  ] as const)('%s of %d bits: %d × %d px', (format, depth, width, height, problem) => {
    const found = sizeProblem({ format, depth }, { width, height })
    if (problem instanceof RegExp) expect(found).toMatch(problem)
    else expect(found).toBe(problem)
  })

  it('is no problem for any photo that opens at full size', () => {
    for (const format of exportFormats) expect(sizeProblem({ format, depth: 8 }, { width: 9500, height: 6300 })).toBeUndefined()
  })

  it('of what the camera said is told, where it has no room', () => {
    expect(exifProblem('jpeg', new Uint8Array(60_000))).toBeUndefined()
    expect(exifProblem('jpeg', new Uint8Array(70_000))).toBe(
      'What the camera said is too long for a JPEG file (70 kB, and 66 kB have room); it is left out. A PNG keeps it.',
    )
    expect(exifProblem('png', new Uint8Array(70_000))).toBeUndefined()
    expect(exifProblem('webp', new Uint8Array(70_000))).toBeUndefined()
  })
})
