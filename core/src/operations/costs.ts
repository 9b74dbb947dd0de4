import type { GraphNode } from '../graph/node'
import { pitchOf, type Grid } from '../planes/grid'
import { intersect, type Rect } from '../planes/rect'
import { motionReach } from './blurs/motionBlur/motionBlur'
import type { MorphologyParameters } from './blurs/morphology/morphology'
import { radialReads, type RadialBlurParameters } from './blurs/radialBlur/radialBlur'
import { burstReach, type Burst } from './sources/burst/burst'
import type { DiscParameters } from './sources/discs/discs'
import type { StarParameters } from './sources/stars/stars'
import { drawnCover } from './sources/streaks/drawnCover'
import type { StreakLayer } from './sources/streaks/streaks'

// What each operation costs: nanoseconds a pixel of its result, measured on one core (`npm run bench -- --only extremes` compares). Where it depends on parameters, they say so.

type Rule = number | ((params: never, rect: Rect, grid: Grid) => number)

/** Places of a path, of a brush or an outline, that one pixel looks at on average. */
const PER_PLACE = 0.02

const rules: Readonly<Record<string, Rule>> = {
  // Sources.
  photo: 12,
  constantTones: 1.4,
  constantField: 0.8,
  laidPicture: 25,
  stripes: 24,
  shafts: 13,
  stars: 1.2,
  starColours: 18,
  grainNoise: 45,
  weightedSum: 4.5,
  strip: 2,
  turbulence: ({ octaves }: { octaves: number }) => 3 + 9 * octaves,
  cloudMask: ({ octaves }: { octaves: number }) => 3 + 4 * octaves,
  streaks: ({ layers }: { layers: readonly StreakLayer[] }, _rect, grid) =>
    2 + 32 * layers.reduce((sum, layer) => sum + drawnCover(layer, pitchOf(grid)), 0),
  discs: ({ spacing, radius, length }: DiscParameters, _rect, grid) => {
    const wide = 2 * radius + 2 * pitchOf(grid)
    return 1 + (25 * (wide + length) * wide) / spacing ** 2
  },
  starLight: (params: StarParameters, _rect, grid) => 3 + starCover(params, grid),
  bursts: ({ bursts }: { bursts: readonly Burst[] }, rect, grid) => burstCost(bursts, rect, grid),
  pathField: ({ lines }: { lines: readonly (readonly unknown[])[] }) => 2 + PER_PLACE * countOf(lines),
  lensDrops: 20,
  refraction: 22,
  // Fields and masks.
  joinFields: 3,
  scaleField: 2.5,
  sumFields: 2.5,
  fieldAsMask: 2.1,
  luma: 3.8,
  levels: 4,
  curve: 11,
  difference: 3,
  fork: 2.8,
  lineAtHalf: 22,
  luminosityMask: 5,
  hueMask: 32,
  skyMask: 40,
  similarMask: ({ taps }: { taps: readonly unknown[] }) => 24 + 22 * taps.length,
  brushMask: ({ strokes }: { strokes: readonly { points: readonly number[] }[] }) =>
    1.5 + (PER_PLACE / 3) * strokes.reduce((sum, { points }) => sum + points.length, 0),
  outlineMask: ({ outlines, holes }: { outlines: readonly (readonly unknown[])[]; holes: readonly (readonly unknown[])[] }) =>
    2.8 + 0.02 * (countOf(outlines) + countOf(holes)),
  ellipseMask: 3.6,
  lineMask: 3.1,
  bandMask: 2.6,
  frameMask: 10,
  combineMasks: 3,
  holdMask: 3.7,
  maskAsTones: 2.3,
  contrastBetween: 3.6,
  // Blurs and windows.
  gaussianBlur: 14,
  motionBlur: ({ length }: { length: number }, _rect, grid) => 4 + 0.4 * 2.5 * (2 * motionReach(length / pitchOf(grid))),
  radialBlur: (params: RadialBlurParameters, rect, grid) =>
    20 + ((params.kind === 'spin' ? 32 : 9) * radialReads(params, grid, rect)) / (rect.width * rect.height),
  morphology: ({ radius, window }: MorphologyParameters, rect, grid) => morphologyCost(Math.abs(radius) / pitchOf(grid), window, rect),
  guidedCoefficients: 52,
  guidedFilter: 8.2,
  unsharp: 3.8,
  takeNoise: 800,
  mendSpots: 10,
  // Geometry.
  polarWrap: 165,
  place: 30,
  bend: 20,
  towards: 37,
  mirror: 40,
  // Tones and light.
  adjust: 24,
  balance: 7.3,
  vivid: 40,
  colourTable: 18,
  ramp: 9.5,
  inSpace: 30,
  joinChannels: 3.3,
  gainByMask: 30,
  litByLamp: 44,
  lampField: 22,
  lightField: 1.6,
  lightColours: 4,
  uncovered: 5,
  sceneLight: 20,
  sceneBrightness: 78,
  tintInLight: 200,
  litField: 2.3,
  litColours: 20,
  brights: 30,
  spreadLight: 36,
  mix: 6,
  mixLayer: 8,
  layerMix: 8,
  fadeTones: 5.8,
  newlyClipped: 4,
  // Distances.
  airlight: 3.9,
  clearAir: 28,
  darkestChannel: 4,
  distanceFromHaze: 20,
  distanceAsTones: 4,
  distanceCurve: 12,
  distanceFromCodes: 3,
  distanceRange: 8,
  distanceFromSteps: 4,
  distanceSteps: 16,
  smallCodes: 3,
  groundDistance: 2,
  layRegion: 4,
  nearTo: 1.6,
}

/** What to lower where an operation costs too much. */
const advice: Readonly<Record<string, string>> = {
  motionBlur: 'lower the length of its motion blur',
  radialBlur: 'lower the strength of its zoom, or the arc of its spin',
  morphology: 'lower its radius, or how far its masks are grown',
  streaks: 'lower its density, its lengths or its sizes',
  discs: 'lower its density or its sizes',
  bursts: 'lower its count or its reach',
  starLight: 'lower its density or its trails, or bring the pole nearer',
  brushMask: 'paint its mask with fewer strokes',
  similarMask: 'take fewer places into its mask',
  pathField: 'draw its lines with fewer points',
}

/** What the person can lower so that a picture costs less. @param operation that costs the most of it */
export function adviceFor(operation: string | undefined): string {
  return (operation === undefined ? undefined : advice[operation]) ?? 'lower its sizes and numbers, or take some of its steps out'
}

/** Nanoseconds a pixel of a node on a grid, on one core. @throws Error if the operation has not been given a cost */
export function costPerPixel({ operation, params }: GraphNode, rect: Rect, grid: Grid): number {
  const rule = rules[operation]
  if (rule === undefined) throw new Error(`The operation ${operation} states no cost.`)
  return typeof rule === 'number' ? rule : rule(params as never, rect, grid)
}

function countOf(lists: readonly (readonly unknown[])[]): number {
  return lists.reduce((sum, list) => sum + list.length, 0)
}

/** A line of pixels grows to both sides, and each row takes as many of them as the window is high; blended between two radii. */
function morphologyCost(radius: number, window: MorphologyParameters['window'], { height }: Rect): number {
  if (window === 'square') return 26
  const rows = 1 + (2 * radius) / Math.max(1, height)
  return 4 + 2 * 0.9 * radius * rows
}

/** Nanoseconds a pixel that one burst covers. */
const [FEW_SPIKES, MANY_SPIKES] = [90, 300] as const

/** How much of a rectangle lies within the squares about bursts. */
function burstCost(bursts: readonly Burst[], rect: Rect, { pitchX, pitchY }: Grid): number {
  const pitch = Math.sqrt(pitchX * pitchY)
  const all = bursts.reduce((sum, burst) => {
    const reach = burstReach(burst)
    const square = {
      x: (burst.x - reach) / pitchX,
      y: (burst.y - reach) / pitchY,
      width: (2 * reach) / pitchX,
      height: (2 * reach) / pitchY,
    }
    const { width, height } = intersect(square, rect)
    const samples = pitch > 1.01 && reach < 400 ? Math.min(8, Math.ceil(pitch)) : 1
    const each = burst.spikes.count > 12 ? MANY_SPIKES : FEW_SPIKES
    // Only what is thin is sampled so finely.
    return sum + Math.max(0, width) * Math.max(0, height) * each * (1 + 0.25 * (samples * samples - 1))
  }, 0)
  return 1 + all / Math.max(1, rect.width * rect.height)
}

/** What stars and their trails cost. */
function starCover({ spacing, sigma, trail, white, faintest }: StarParameters, grid: Grid): number {
  const pitch = pitchOf(grid)
  const [x, y] = [grid.width * grid.pitchX, grid.height * grid.pitchY]
  const far = Math.hypot(Math.max(Math.abs(trail.x), Math.abs(trail.x - x)), Math.max(Math.abs(trail.y), Math.abs(trail.y - y)))
  const arc = ((Math.min(360, trail.turn) * Math.PI) / 180) * far
  // The fainter ones, which are most, are hardly wider than they must be.
  const wide = 2 * sigma * Math.sqrt(Math.max(1, 12 + 2 * (white - faintest))) + 4 * pitch
  const samples = pitch < 1.01 ? 1 : pitch < 6 ? 4 : 8
  return (7 * samples * samples * (arc + wide) * wide) / spacing ** 2
}
