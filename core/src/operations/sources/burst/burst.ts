import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'

/** Light that spreads from a place. Lengths in photo px, parts 0-1, angles in degrees counter-clockwise. */
export interface Burst {
  readonly x: number
  readonly y: number
  /** Radius of the overexposed middle. */
  readonly core: number
  readonly halo: number
  readonly haloSize: number
  readonly spikes: {
    readonly count: number
    readonly reach: number
    readonly strength: number
    /** Standard deviation where they begin. */
    readonly thickness: number
    readonly uneven: number
    readonly turn: number
    /** Spikes of a diaphragm: exactly even. */
    readonly paired: boolean
  }
  /** Rays of noise: features around the turn, strength, reach, and the tones between which they rise. */
  readonly rays: { readonly count: number; readonly strength: number; readonly reach: number; readonly low: number; readonly high: number }
  readonly seed: number
}

/** How far a burst reaches from its middle, photo px. */
export function burstReach({ core, halo, haloSize, spikes, rays }: Burst): number {
  return Math.max(
    4 * core + 4,
    halo > 0 ? 7 * haloSize : 0,
    spikes.count > 0 && spikes.strength > 0 ? spikes.reach : 0,
    rays.count > 0 && rays.strength > 0 ? rays.reach : 0,
  )
}

/** Pixels of a coarse grid to the width of a core or halo. */
const PIXELS_OF_GLOW = 5

/** The finest that a burst holds, photo px: spikes and rays are thin, what glows is as wide as it is. */
function finestOf({ core, halo, haloSize, spikes, rays }: Burst): number {
  if ((spikes.count > 0 && spikes.strength > 0) || (rays.count > 0 && rays.strength > 0)) return 0
  return Math.min(core > 0 ? core : Infinity, halo > 0 ? haloSize : Infinity)
}

type BurstParameters = {
  readonly bursts: readonly Burst[]
  readonly phase: number
  /** The finest that is wanted of them, photo px, whatever they hold. */
  readonly detail?: number
}

/** Bursts of light laid over each other, as a field, and at a reduced scale the variance inside each pixel. */
export const bursts: Operation<BurstParameters> = {
  name: 'bursts',
  pitch: ({ bursts: all, detail }) => detail ?? Math.min(...all.map(finestOf)) / PIXELS_OF_GLOW,
  run({ kernels, grid, plane }, { bursts: all, phase }, _inputs, rect) {
    const count = rect.width * rect.height
    const reduced = grid.pitchX > 1 || grid.pitchY > 1
    const planes = (reduced ? [0, 1] : [0]).map(() => {
      const out = plane(count)
      kernels.fill(out, count, 0)
      return out
    })
    for (const { x, y, core, halo, haloSize, spikes, rays, seed } of all) {
      kernels.addBurst(
        ...([planes[0] ?? 0, planes[1] ?? 0, rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY, x, y] as const),
        ...([core, halo, Math.max(0.1, haloSize), spikes.count, spikes.reach, spikes.strength, spikes.thickness, spikes.uneven] as const),
        ...([
          (spikes.turn * Math.PI) / 180,
          spikes.paired,
          rays.count,
          rays.strength,
          rays.reach,
          rays.low,
          rays.high,
          seed | 0,
          phase,
        ] as const),
      )
    }
    return { kind: 'field', rect, planes }
  },
}

export function burstsNode(all: readonly Burst[], phase: number, detail?: number): GraphNode {
  return graphNode('bursts', { bursts: all, phase, ...(detail === undefined ? {} : { detail }) })
}
