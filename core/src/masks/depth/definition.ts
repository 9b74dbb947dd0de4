import { z } from 'zod'
import { numberControl, percentControl } from '../../model/controls'
import { distanceRangeNode } from '../../operations/distance/sceneDistance/sceneDistance'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

const metres = (label: string, hint: string): z.ZodNumber =>
  numberControl({ label, unit: 'm', usual: [0, 200], hard: [0, 100000], step: 0.1, hint })

export const depthMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('depth'),
  near: metres('From', 'The mask is open from here on.'),
  far: metres('To', 'The mask is open up to here.'),
  softness: percentControl('Fall-off', 'At 100 % it fades over a doubling or halving of the distance.'),
})
export type DepthMask = z.infer<typeof depthMaskSchema>

export const depthMaskKind: MaskDefinition<DepthMask> = {
  kind: 'depth',
  keeps: true,
  label: 'Depth',
  hint: 'Between two distances, by the depth of the scene',
  start: () => ({ kind: 'depth', near: 20, far: 100000, softness: 50 }),
  summary: ({ near, far }) =>
    far >= 100000 ? `beyond ${round(near)} m` : near <= 0 ? `nearer than ${round(far)} m` : `${round(near)}–${round(far)} m`,
  node(mask, { distance }) {
    if (!distance) return undefined
    const fade = 1 + mask.softness / 100
    const [near, far] = [Math.min(mask.near, mask.far), Math.max(mask.near, mask.far)]
    return distanceRangeNode(distance, { from: near / fade, near, far, to: far * fade })
  },
  problem: (_, { distance }) =>
    distance
      ? undefined
      : 'This scene has no depth yet: set the horizon, outline a region or import a picture in Marks. The mask is left out.',
}

function round(metresAway: number): number {
  return metresAway < 10 ? Number(metresAway.toFixed(1)) : Math.round(metresAway)
}
