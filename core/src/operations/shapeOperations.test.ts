import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels, take } from '../../test-support/kernels'
import { evaluatorFor, photoFrom, renderAll, samplePixels } from '../../test-support/pictures'
import type { GraphNode } from '../graph/node'
import type { Kernels } from '../graph/operation'
import type { PhotoData } from '../photo/photoData'
import { gridAt, gridBounds } from '../planes/grid'
import { gaussianBlurNode } from './blurs/gaussianBlur/gaussianBlur'
import { motionBlurNode } from './blurs/motionBlur/motionBlur'
import { photoNode } from './sources/photo/photo'
import { placeNode, type PlaceParameters } from './geometry/place/place'

let kernels: Kernels
let photo: PhotoData
const [width, height] = [420, 300]
beforeAll(async () => {
  kernels = await loadKernels()
  photo = photoFrom(kernels, 'p', width, height, samplePixels(width, height))
})

const still: PlaceParameters = { enlarge: 1, turn: 0, moveX: 0, moveY: 0, centreX: width / 2, centreY: height / 2 }
const source = photoNode('p')
const chains: Record<string, GraphNode> = {
  'blur 3': gaussianBlurNode(source, 3),
  'blur 30': gaussianBlurNode(source, 30),
  'smear 25 at 80': motionBlurNode(source, 25, 80),
  'turned and enlarged': placeNode(source, { ...still, enlarge: 1.7, turn: 23, moveX: 12.5, moveY: -8 }),
  'all after one another': placeNode(motionBlurNode(gaussianBlurNode(source, 12), 31, 15), { ...still, enlarge: 0.6, turn: -100 }),
}

describe('shape operations', () => {
  it.each(Object.keys(chains))('%s: any tiles give identical bytes, at any scale', (name) => {
    for (const scale of [1, 0.5, 0.31]) {
      const whole = renderAll(evaluatorFor(kernels, photo), chains[name]!, photo, scale)
      for (const tile of [37, 64, 200]) {
        const tiled = renderAll(evaluatorFor(kernels, photo), chains[name]!, photo, scale, tile)
        expect(Buffer.from(tiled.pixels).equals(Buffer.from(whole.pixels)), `tile ${tile}, scale ${scale}`).toBe(true)
      }
    }
  })

  /** Value of the first channel of a node at full size. */
  function red(node: GraphNode): (x: number, y: number) => number {
    const grid = gridAt(photo, 1)
    const value = evaluatorFor(kernels, photo).evaluate(node, gridBounds(grid), grid)
    const plane = take(kernels, value.planes[0]!, width * height)
    return (x, y) => plane[y * width + x]!
  }

  it('place moves by whole pixels without loss', () => {
    const [before, after] = [red(source), red(placeNode(source, { ...still, moveX: 20, moveY: -7 }))]
    for (const [x, y] of [
      [50, 60],
      [200, 110],
      [399, 200],
    ] as const)
      expect(after(x, y)).toBeCloseTo(before(x - 20, y + 7), 6)
  })

  it('place turns counter-clockwise about its centre', () => {
    const [before, after] = [red(source), red(placeNode(source, { ...still, turn: 90 }))]
    // A quarter turn takes what is right of the centre to above it; pixel centres fall on pixel centres.
    for (const [dx, dy] of [
      [40, 0],
      [0, 30],
      [-60, 25],
    ] as const) {
      const [x, y] = [width / 2 + dx, height / 2 + dy]
      expect(after(width / 2 + dy, height / 2 - dx - 1)).toBeCloseTo(before(x, y), 5)
    }
  })

  it('place enlarges about its centre', () => {
    const [before, after] = [red(source), red(placeNode(source, { ...still, enlarge: 2 }))]
    const at = (x: number): number => 0.25 * before(x - 1, 150) + 0.75 * before(x, 150)
    const mean = (x: number): number => 0.75 * at(x) + 0.25 * (0.25 * before(x - 1, 149) + 0.75 * before(x, 149))
    // Pixel (2 d) from the centre reads a quarter of a pixel beside pixel d.
    for (const d of [10, 33, -51]) expect(after(width / 2 + 2 * d, 150)).toBeCloseTo(mean(width / 2 + d), 5)
  })
})
