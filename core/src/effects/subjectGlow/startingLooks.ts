import type { Ramp } from '../../model/look'
import type { StartingLook } from '../effectDefinition'
import { glowStart, type GlowShape } from '../glow'
import type { Where } from '../../model/look'
import { aboutTheFocalPoint, everywhere, notTheSky } from '../lightMasks'
import { sparesShadows } from '../sparesShadows'
import type { SubjectGlowControls } from './definition'

/**
 * What is bright about the focal point and is no sky, without an outline of its own: an ellipse that is a subject nowhere would be seen as a ring or a ball. Whoever has a subject draws around it, or
 * takes it by its colour.
 */
const brightsAbout: Where = {
  masks: [
    ...aboutTheFocalPoint(620, 520, 100).masks,
    { ...sparesShadows, id: 'its brights', name: 'Its brights', join: 'keep', handles: [0.28, 0.62, 1, 1], feather: 2 },
    { ...notTheSky, feather: 40 },
  ],
  hold: 100,
}

function look(
  id: string,
  name: string,
  amount: number,
  tint: string,
  ramp: Ramp,
  shape: Partial<GlowShape>,
): StartingLook<SubjectGlowControls> {
  return {
    id,
    name,
    controls: { pattern: { brightness: 100 }, shape: { ...glowStart, ...shape } },
    colour: { tint, light: null, lit: 0, ramp },
    where: everywhere,
    region: brightsAbout,
    mix: { mode: 'screen', amount, linear: false },
  }
}

const ramp = (dark: string, middle: string, bright: string): Ramp => [
  { at: 0, colour: dark },
  { at: 55, colour: middle },
  { at: 100, colour: bright },
]

/** Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<SubjectGlowControls>[] = [
  look('rim-of-light', 'Rim of light', 85, '#ffc27a', ramp('#c2551c', '#ffb257', '#fff1d6'), {
    sits: 'behind',
    sharp: 0,
    tight: 85,
    spill: 14,
  }),
  look('lit-from-within', 'Lit from within', 75, '#ffb15c', ramp('#a5400f', '#ff9f43', '#fff3dc'), { sharp: 22, wideRadius: 80 }),
  look('cold-ember', 'Cold ember', 80, '#8fd0ff', ramp('#1f4fa8', '#7cc4ff', '#effaff'), {
    sits: 'behind',
    sharp: 0,
    wide: 75,
    wideRadius: 90,
    spill: 20,
  }),
]
