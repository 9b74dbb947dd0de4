import { describe, expect, it } from 'vitest'
import type { GraphNode } from '../graph/node'
import { sceneGraph } from '../render/sceneGraph'
import { boundedDiscs, boundedSpecks, boundedTogether, mostReach } from './boundedSpecks'
import { newEffect } from './newEffect'

const photo = { width: 3000, height: 2000 }
/** How often specks of a size, one per square of the spacing, cover the photo. */
const cover = (spacing: number, long: number, wide: number) => ((long + wide) * wide) / (spacing * spacing)

describe('numbers whose product is absurd', () => {
  it.each([
    ['a downpour', { spacing: 12, sigma: 1.2, blur: 0.6, length: 60 }],
    ['one large soft flake', { spacing: 900, sigma: 60, blur: 20, length: 0 }],
  ])('%s is left as it is', (_, specks) => {
    expect(boundedSpecks(specks, photo)).toEqual(specks)
  })

  it('dense, long and large specks are spaced so that what is drawn stays bounded', () => {
    for (const spacing of [0.5, 2, 10]) {
      for (const sigma of [0.2, 20, 1200]) {
        for (const length of [0, 1500, 600_000]) {
          const found = boundedSpecks({ spacing, sigma, blur: 300, length }, photo)
          expect(found.spacing).toBeGreaterThanOrEqual(spacing)
          expect(cover(found.spacing, found.length, 8 * Math.hypot(found.sigma, found.blur))).toBeLessThanOrEqual(60.001)
          expect(found.length).toBeLessThanOrEqual(2 * Math.hypot(3000, 2000))
        }
      }
    }
  })

  it('many layers are spaced so that all of them together stay bounded; usual ones are left as they are', () => {
    const dense = { spacing: 10, sigma: 3, blur: 0, length: 200, lengthVariation: 0, taper: 0, seed: 7 }
    const found = boundedTogether(Array.from({ length: 9 }, () => dense))
    expect(found.reduce((sum, { spacing, length }) => sum + ((length + 6.6 * 3) * (6.6 * 3 + 3)) / spacing ** 2, 0)).toBeCloseTo(60, 3)
    expect(found.every(({ seed, sigma }) => seed === 7 && sigma === 3)).toBe(true)
    const usual = [
      { ...dense, spacing: 30 },
      { ...dense, spacing: 20 },
    ]
    expect(boundedTogether(usual)).toBe(usual)
  })

  it('so are discs, and the reach of many things', () => {
    const found = boundedDiscs({ spacing: 1, radius: 5000, length: 90_000 }, photo)
    expect(cover(found.spacing, found.length, 3 * found.radius)).toBeLessThanOrEqual(60.001)
    expect(mostReach(8, photo)).toBeGreaterThan(3000)
    // As many squares of that reach cover the photo a bounded number of times.
    for (const count of [100, 10_000, 1_000_000]) {
      const reach = mostReach(count, photo)
      if (reach > 1) expect((count * (2 * reach) ** 2) / (3000 * 2000)).toBeLessThanOrEqual(8.1)
    }
  })

  it('motes float no farther than their bounded size says, so that few are looked at for a place', () => {
    const small = { width: 80, height: 56 }
    const effect = newEffect(small, { kind: 'dust', id: 'd' })
    Object.assign(effect.controls.pattern, { size: 600, density: 1000 })
    Object.assign(effect.controls.shape, { drift: 1500, enlarge: 2000 })
    const node = sceneGraph({ photo: { id: 'p', ...small }, effects: [effect] })
    const discs = nodesOf(node).filter(({ operation }) => operation === 'discs')
    expect(discs).toHaveLength(2)
    for (const { params } of discs) {
      const { sway, spacing } = params as { sway: number; spacing: number }
      expect((4 * sway) / spacing).toBeLessThan(500)
    }
  })
})

function nodesOf(root: GraphNode): GraphNode[] {
  return [root, ...root.inputs.flatMap(nodesOf)]
}
