import type { OutlineCorner } from '../../model/corner'
import type { Ramp } from '../../model/look'
import type { StartingLook } from '../effectDefinition'
import { glowStart } from '../glow'
import { everywhere } from '../lightMasks'
import type { GlowLineControls } from './definition'

const corner = (x: number, y: number, outX: number, outY: number): OutlineCorner => ({ x, y, inX: -outX, inY: -outY, outX, outY })

function look(
  id: string,
  name: string,
  tint: string,
  ramp: Ramp,
  paths: OutlineCorner[][],
  pattern: Partial<GlowLineControls['pattern']>,
  shape: Partial<GlowLineControls['shape']>,
): StartingLook<GlowLineControls> {
  return {
    id,
    name,
    controls: { pattern: { paths, width: 5, taper: 80, hardness: 60, ...pattern }, shape: { ...glowStart, ...halo, ...shape } },
    colour: { tint, light: null, lit: 0, ramp },
    where: everywhere,
    mix: { mode: 'screen', amount: 90, linear: false },
  }
}

const ramp = (glow: string, core: string): Ramp => [
  { at: 0, colour: glow },
  { at: 62, colour: glow },
  { at: 100, colour: core },
]

/** Shares of the three blurs at the line itself: set by eye. */
const halo = { halo: 'line', tight: 60, middle: 30, wide: 14, spill: 10 } as const

/** A line 5 px wide under three blurs: common practice, no source. For 6 megapixels. */
export const startingLooks: readonly StartingLook<GlowLineControls>[] = [
  look(
    'warm-trail',
    'Warm trail',
    '#ff9a3d',
    ramp('#ff8a2b', '#fff6e2'),
    [[corner(900, 1350, 260, -330), corner(1650, 1050, 280, 190), corner(2250, 760, 160, -260)]],
    {},
    {},
  ),
  look(
    'neon-tube',
    'Neon tube',
    '#ff4fa0',
    ramp('#ff3d98', '#fff0f8'),
    [[corner(1000, 900, 220, -160), corner(1500, 820, 240, 120), corner(2000, 900, 220, 160)]],
    { width: 9, taper: 0, hardness: 80 },
    { wideRadius: 80, tight: 70, middle: 40, wide: 22, spill: 14 },
  ),
  look(
    'firefly-path',
    'Firefly path',
    '#c9ff7a',
    ramp('#a4e04a', '#fcffe9'),
    [[corner(1050, 1500, 120, -260), corner(1300, 1150, 260, 90), corner(1750, 1250, 120, -220), corner(1950, 900, 150, -60)]],
    { width: 4 },
    { tightRadius: 4, middleRadius: 14, spill: 6, tight: 50, wide: 9 },
  ),
]
