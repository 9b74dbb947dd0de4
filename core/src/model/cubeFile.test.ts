import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, randomNumbers } from '../../test-support/pictures'
import type { Kernels } from '../graph/operation'
import { colourTableOf, colourTableSchema, valuesOfTable } from './colourTable'
import { colourTableNode } from '../operations/colour/colourTable/colourTable'
import { plane } from '../operations/plane'
import { photoNode } from '../operations/sources/photo/photo'
import { gridAt, gridBounds } from '../planes/grid'
import { readCube } from './cubeFile'

// Cube LUT Specification 1.0: the layout of the file. Tetrahedral interpolation: written out here once more by its six cases.

const cube = (size: number, colour: (r: number, g: number, b: number) => number[], head = ''): string => {
  const at = (i: number): number => i / (size - 1)
  const rows: string[] = []
  for (let b = 0; b < size; b++)
    for (let g = 0; g < size; g++)
      for (let r = 0; r < size; r++)
        rows.push(
          colour(at(r), at(g), at(b))
            .map((v) => v.toFixed(6))
            .join(' '),
        )
  return `# a comment\nTITLE "made for a test"\n${head}LUT_3D_SIZE ${size}\n\n${rows.join('\n')}\n`
}
const same = (r: number, g: number, b: number) => [r, g, b]

describe('a .cube file', () => {
  it('of 3D and of 1D is read, with comments, a title, and lines of any ending', () => {
    const read = readCube(cube(3, (r, g, b) => [b, r, g]).replaceAll('\n', '\r\n'), 'a.cube')
    expect([read.kind, read.size]).toEqual(['cube', 3])
    // Red counts fastest: the second entry is half red, which goes to green.
    expect([...read.values.slice(3, 6)]).toEqual([0, 0.5, 0])
    const curves = readCube('LUT_1D_SIZE 2\n0 0.1 0\n1 0.9 0.5\n', 'b.cube')
    expect([curves.kind, curves.size, ...curves.values]).toEqual(['curves', 2, 0, 0.1, 0, 1, 0.9, 0.5])
  })

  it('with a domain of its own means the same colours, and a fine one is kept at 33 a side', () => {
    const wide = readCube(
      cube(5, (r, g, b) => [r, g, b], 'DOMAIN_MIN 0 0 0\nDOMAIN_MAX 2 2 2\n'),
      'c.cube',
    )
    // In the middle of its domain lies what is white here.
    expect([wide.size, wide.values.at(-1)]).toEqual([33, 0.5])
    expect(readCube(cube(40, same), 'd.cube').size).toBe(33)
  })

  // A habit of programs of film, no source: a range of codes goes for what comes in and for what goes out; a smaller one is a domain.
  it('with a range of input means the same colours as one without', () => {
    const plain = readCube(
      cube(5, (r, g, b) => [g, b, r]),
      'p.cube',
    )
    const bits = readCube(
      cube(5, (r, g, b) => [255 * g, 255 * b, 255 * r], 'LUT_3D_INPUT_RANGE 0 255\n'),
      'e.cube',
    )
    const parts = readCube(
      cube(5, (r, g, b) => [g, b, r], 'LUT_3D_INPUT_RANGE 0.0 1.0\n'),
      'f.cube',
    )
    expect(bits.values.every((value, i) => Math.abs(value - plain.values[i]!) < 1e-8)).toBe(true)
    expect([...parts.values]).toEqual([...plain.values])
    const wide = readCube(cube(5, same, 'LUT_3D_INPUT_RANGE 0 2\n'), 'g.cube')
    // What is white here lies in the middle of its domain.
    expect([wide.size, wide.values.at(-1)]).toEqual([33, 0.5])
    const short = readCube('LUT_1D_SIZE 2\nLUT_1D_INPUT_RANGE 0 0.5\n0 0 0\n1 1 1\n', 'h.cube')
    expect(short.values[3 * 256]).toBeCloseTo(0.5, 2)
  })

  it.each([
    ['LUT_1D_SIZE 2\nLUT_1D_INPUT_RANGE 0\n0 0 0\n1 1 1\n', /line 2, two numbers/],
    ['', /line 1, there is no size/],
    ['LUT_3D_SIZE 1\n', /line 1, a size is a whole number from 2 to 256/],
    ['LUT_3D_SIZE 2.5\n', /line 1, a size is a whole number/],
    ['LUT_1D_SIZE 99999999\n', /from 2 to 65536/],
    ['LUT_1D_SIZE 2\nLUT_3D_SIZE 2\n', /line 2, a second size/],
    ['0 0 0\n', /line 1, numbers before a size/],
    ['LUT_1D_SIZE 2\n0 0 0\n', /2 entries are needed, and there are 1/],
    ['LUT_1D_SIZE 2\n0 0 0\n1 1 1\n1 1 1\n', /2 entries are needed, and there are 3/],
    ['LUT_1D_SIZE 2\n0 0 NaN\n1 1 1\n', /line 2, “0 0 NaN” is not understood/],
    ['LUT_1D_SIZE 2\n0 0\n1 1 1\n', /line 2, three numbers/],
    ['LUT_1D_SIZE 2\nDOMAIN_MIN 1 0 0\n0 0 0\n1 1 1\n', /the domain is empty/],
    ['<svg/>', /line 1, “<svg\/>” is not understood/],
  ])('that is wrong is refused with its line: %j', (text, words) => {
    expect(() => readCube(text, 'x.cube')).toThrow(words)
    expect(() => readCube(text, 'x.cube')).toThrow('“x.cube” is not a table of colours that can be read')
  })
})

describe('colours through a table', () => {
  let kernels: Kernels
  beforeAll(async () => {
    kernels = await loadKernels()
  })
  const size = { width: 32, height: 24 }
  const random = randomNumbers(9)
  const rgba = Uint8ClampedArray.from({ length: size.width * size.height * 4 }, (_, i) => (i % 4 === 3 ? 255 : 256 * random()))
  const through = (text: string): number[][] => {
    const table = colourTableSchema.parse(colourTableOf('t', readCube(text, 't.cube')))
    const evaluator = evaluatorFor(kernels, photoFrom(kernels, 'photo', size.width, size.height, rgba))
    const grid = gridAt(size, 1)
    const value = evaluator.evaluate(colourTableNode(photoNode('photo'), table), gridBounds(grid), grid)
    const planes = value.planes.map((_, k) => new Float32Array(kernels.memory.buffer, plane(value, k), size.width * size.height).slice())
    return Array.from(planes[0]!, (_, i) => planes.map((channel) => channel[i]!))
  }
  const photo = (i: number): [number, number, number] => [rgba[4 * i]! / 255, rgba[4 * i + 1]! / 255, rgba[4 * i + 2]! / 255]

  it('that changes nothing is exact', () => {
    for (const n of [2, 9, 33])
      through(cube(n, same)).forEach((found, i) => found.forEach((v, k) => expect(Math.abs(v - photo(i)[k]!)).toBeLessThan(2e-5)))
    through('LUT_1D_SIZE 3\n0 0 0\n.5 .5 .5\n1 1 1\n').forEach((found, i) =>
      found.forEach((v, k) => expect(Math.abs(v - photo(i)[k]!)).toBeLessThan(2e-5)),
    )
  })

  it('is the tetrahedral interpolation of its six cases', () => {
    const n = 4
    const values: number[][] = []
    const text = cube(n, () => {
      const entry = [random(), random(), random()].map((v) => Number(v.toFixed(6)))
      values.push(entry)
      return entry
    })
    through(text).forEach((found, i) => {
      const [r, g, b] = photo(i).map((v) => v * (n - 1)) as [number, number, number]
      const [x, y, z] = [r, g, b].map((v) => Math.min(n - 2, Math.floor(v))) as [number, number, number]
      const [fr, fg, fb] = [r - x, g - y, b - z]
      const c = (dx: number, dy: number, dz: number): number[] => values[((z + dz) * n + y + dy) * n + x + dx]!
      const [c000, c111] = [c(0, 0, 0), c(1, 1, 1)]
      const wanted = [0, 1, 2].map((k) => {
        const v = (corner: number[]): number => corner[k]!
        if (fr >= fg && fg >= fb) return (1 - fr) * v(c000) + (fr - fg) * v(c(1, 0, 0)) + (fg - fb) * v(c(1, 1, 0)) + fb * v(c111)
        if (fr >= fb && fb >= fg) return (1 - fr) * v(c000) + (fr - fb) * v(c(1, 0, 0)) + (fb - fg) * v(c(1, 0, 1)) + fg * v(c111)
        if (fb >= fr && fr >= fg) return (1 - fb) * v(c000) + (fb - fr) * v(c(0, 0, 1)) + (fr - fg) * v(c(1, 0, 1)) + fg * v(c111)
        if (fg >= fr && fr >= fb) return (1 - fg) * v(c000) + (fg - fr) * v(c(0, 1, 0)) + (fr - fb) * v(c(1, 1, 0)) + fb * v(c111)
        if (fg >= fb && fb >= fr) return (1 - fg) * v(c000) + (fg - fb) * v(c(0, 1, 0)) + (fb - fr) * v(c(0, 1, 1)) + fr * v(c111)
        return (1 - fb) * v(c000) + (fb - fg) * v(c(0, 0, 1)) + (fg - fr) * v(c(0, 1, 1)) + fr * v(c111)
      })
      wanted.forEach((v, k) => expect(Math.abs(found[k]! - v)).toBeLessThan(5e-5))
    })
  })

  it('is kept in full, and one whose codes are cut short is not valid', () => {
    const table = colourTableOf(
      't',
      readCube(
        cube(5, (r, g, b) => [r * g, b, 1 - r]),
        't.cube',
      ),
    )
    expect(valuesOfTable(table)).toHaveLength(375)
    expect(colourTableSchema.safeParse({ ...table, codes: table.codes.slice(0, -8) }).success).toBe(false)
  })
})
