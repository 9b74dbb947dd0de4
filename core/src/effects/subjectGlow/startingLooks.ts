import type { Ramp } from '../../model/look'
import type { StartingLook } from '../effectDefinition'
import { glowStart, type GlowShape } from '../glow'
import type { Where } from '../../model/look'
import { aboutTheFocalPoint, everywhere } from '../lightMasks'
import { sparesShadows } from '../sparesShadows'
import type { SubjectGlowControls } from './definition'

const aboutTheSubject = aboutTheFocalPoint(190, 190, 70)
/** What is bright of it: a whole ellipse that shines would be a ball. */
const itsBrights: Where = {
  masks: [...aboutTheSubject.masks, { ...sparesShadows, id: 'its brights', join: 'keep', handles: [0.08, 0.75, 1, 1], feather: 3 }],
  hold: 100,
}

function look(
  name: string,
  amount: number,
  tint: string,
  ramp: Ramp,
  shape: Partial<GlowShape>,
  region = aboutTheSubject,
): StartingLook<SubjectGlowControls> {
  return {
    name,
    controls: { pattern: { brightness: 100 }, shape: { ...glowStart, ...shape } },
    colour: { tint, light: null, lit: 0, ramp },
    where: everywhere,
    region,
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
  look('Rim of light', 85, '#ffc27a', ramp('#c2551c', '#ffb257', '#fff1d6'), { sits: 'behind', sharp: 0, tight: 85, spill: 14 }),
  look('Lit from within', 75, '#ffb15c', ramp('#a5400f', '#ff9f43', '#fff3dc'), { sharp: 22, wideRadius: 80 }, itsBrights),
  look('Cold ember', 80, '#8fd0ff', ramp('#1f4fa8', '#7cc4ff', '#effaff'), {
    sits: 'behind',
    sharp: 0,
    wide: 75,
    wideRadius: 90,
    spill: 20,
  }),
]
