import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import type { Grid } from '../../../planes/grid'
import { intersect, union, type Rect } from '../../../planes/rect'
import { gaussianBlurNode } from '../../blurs/gaussianBlur/gaussianBlur'
import { inputAt, plane } from '../../plane'

/** A disc that is mended, photo px: from a place so far away, or keeping its own texture. */
export type MendedSpot = {
  readonly x: number
  readonly y: number
  readonly radius: number
  readonly shiftX: number
  readonly shiftY: number
  /** 0-1: part of the radius over which it passes into what was there. */
  readonly soft: number
  /** Only its tones are mended, its texture stays. */
  readonly tonesOnly: boolean
}

type MendParameters = { readonly spots: readonly MendedSpot[] }

/** How far about a spot its surroundings are read, as a part of its radius. */
const RIM = 1.35
/** Texture is what is finer than this part of the radius of a spot whose tones alone are mended. */
const COARSE = 0.15
/** Doubles that the kernel keeps about the rim. */
const SAMPLE_BYTES = 3 * 64 * 8

/**
 * Discs of tones (input 0) mended so that they meet their surroundings (Poisson image editing: Pérez, Gangnet and Blake 2003). Where only tones are mended the second input is the same picture blurred, and what
 * differs from it is the texture. Spots of one node are all mended from the picture as it came.
 */
export const mendSpots: Operation<MendParameters> = {
  name: 'mendSpots',
  isStage: true,
  need({ spots }, rect, grid, _kernels, index) {
    const touched = spots.filter((spot) => touches(spot, rect, grid))
    if (index > 0 && touched.length === 0) return { ...rect, width: 1, height: 1 }
    return touched.reduce((all, spot) => [0, 1].reduce((sum, times) => union(sum, around(spot, grid, times)), all), rect)
  },
  run(context, { spots }, inputs, rect) {
    const { kernels, grid, scratch } = context
    const tones = inputAt(inputs, 0)
    const from = tones.rect
    const area = from.width * from.height
    const work = scratch(SAMPLE_BYTES)
    const touched = spots.filter((spot) => touches(spot, rect, grid))
    const planes = [0, 1, 2].map((channel) => {
      const source = plane(tones, channel)
      const out = context.plane(rect.width * rect.height)
      kernels.copyExtended(source, from.width, from.height, rect.x - from.x, rect.y - from.y, out, rect.width, rect.height)
      for (const { x, y, radius, shiftX, shiftY, soft, tonesOnly } of touched) {
        const rim = tonesOnly ? plane(inputAt(inputs, 1), channel) : source
        const texture = tonesOnly ? scratch(4 * area + 16) : source
        if (tonesOnly) kernels.difference(source, rim, area, true, texture)
        const [dx, dy] = tonesOnly ? [0, 0] : [shiftX, shiftY]
        kernels.mendDisc(
          ...([texture, rim, from.x, from.y, from.width, from.height, out, rect.x, rect.y, rect.width, rect.height] as const),
          ...([grid.pitchX, grid.pitchY, x, y, radius, dx, dy, soft, !tonesOnly, work] as const),
        )
      }
      return out
    })
    return { kind: 'tones', rect, planes }
  },
}

/** `tones` with spots mended one after the other: what reads or covers an earlier one sees it mended. */
export function mendSpotsNode(tones: GraphNode, spots: readonly MendedSpot[]): GraphNode {
  const bundles: MendedSpot[][] = []
  for (const spot of spots) {
    const last = bundles.at(-1)
    if (last && !spot.tonesOnly && last.every((other) => !other.tonesOnly && isApart(spot, other))) last.push(spot)
    else bundles.push([spot])
  }
  return bundles.reduce((beneath, together) => {
    const [first] = together
    const blurred = first?.tonesOnly ? [gaussianBlurNode(beneath, COARSE * first.radius)] : []
    return graphNode('mendSpots', { spots: together }, [beneath, ...blurred])
  }, tones)
}

/** Whether neither spot reads what the other changes. */
function isApart(one: MendedSpot, other: MendedSpot): boolean {
  const far = (ax: number, ay: number, bx: number, by: number): boolean =>
    Math.sqrt((ax - bx) ** 2 + (ay - by) ** 2) > RIM * (one.radius + other.radius)
  return (
    far(one.x, one.y, other.x, other.y) &&
    far(one.x + one.shiftX, one.y + one.shiftY, other.x, other.y) &&
    far(one.x, one.y, other.x + other.shiftX, other.y + other.shiftY)
  )
}

/** What is read about a spot (0), or about the place that it is mended from (1), grid px. */
function around({ x, y, radius, shiftX, shiftY, tonesOnly }: MendedSpot, { pitchX, pitchY }: Grid, times: number): Rect {
  const [cx, cy] = tonesOnly ? [x, y] : [x + times * shiftX, y + times * shiftY]
  const [left, top] = [Math.floor((cx - RIM * radius) / pitchX) - 2, Math.floor((cy - RIM * radius) / pitchY) - 2]
  return {
    x: left,
    y: top,
    width: Math.ceil((cx + RIM * radius) / pitchX) + 2 - left,
    height: Math.ceil((cy + RIM * radius) / pitchY) + 2 - top,
  }
}

function touches(spot: MendedSpot, rect: Rect, grid: Grid): boolean {
  const shared = intersect(around(spot, grid, 0), rect)
  return shared.width > 0 && shared.height > 0
}
