import { z } from 'zod'
import { numberControl, percentControl } from '../../model/controls'
import { luminosityMaskNode } from '../../operations/luminosityMask/luminosityMask'
import { maskBase } from '../maskBase'
import type { MaskDefinition } from '../maskDefinition'

const metres = (label: string, hint: string): z.ZodNumber =>
  numberControl({ label, unit: 'm', usual: [0, 200], hard: [0, 100000], step: 0.1, hint })

export const depthMaskSchema = z.strictObject({
  ...maskBase,
  kind: z.literal('depth'),
  near: metres('From', 'The mask is open from here on.'),
  far: metres('To', 'The mask is open up to here.'),
  softness: percentControl('Softness', 'At 100 % it fades over a doubling or halving of the distance.'),
})
export type DepthMask = z.infer<typeof depthMaskSchema>

export const depthMaskKind: MaskDefinition<DepthMask> = {
  kind: 'depth',
  label: 'Depth',
  hint: 'Between two distances, by the depth of the scene',
  start: () => ({ kind: 'depth', near: 20, far: 100000, softness: 50 }),
  summary: ({ near, far }) =>
    far >= 100000 ? `beyond ${round(near)} m` : near <= 0 ? `nearer than ${round(far)} m` : `${round(near)}–${round(far)} m`,
  node(mask, { depth }) {
    if (!depth) return undefined
    const fade = 1 + mask.softness / 100
    const [near, far] = [Math.min(mask.near, mask.far), Math.max(mask.near, mask.far)]
    const codes = [near / fade, near, far, far * fade].map(depth.codeAt).sort((a, b) => a - b)
    const handles = codes as [number, number, number, number]
    return luminosityMaskNode(depth.node, { channel: 'red', curve: 'range', handles, steepness: 0 })
  },
  problem: (_, { depth }) => (depth ? undefined : 'This scene has no depth picture yet; the mask is left out.'),
}

function round(metresAway: number): number {
  return metresAway < 10 ? Number(metresAway.toFixed(1)) : Math.round(metresAway)
}
