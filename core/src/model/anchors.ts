import { z } from 'zod'
import { nameOfEffect } from '../effects/effectName'
import { definitionOf, type Effect } from '../effects/registry'
import { maskSchema } from '../masks/registry'
import type { Size } from '../planes/grid'
import { limitsOf, nearestNumber, placeControl } from './controls'
import type { Group, Where } from './look'
import { FOCAL_POINT, horizonOf, waterlineOf, type SceneMarks } from './marks'
import { readPath, readWord, writePath } from './paths'
import { listOf, rolesOf } from './roles'
import type { SharedMask, Stack } from './stack'
import { optionFor } from './walk'

// The places of a recipe stand where they stood on the photo that it was made on. What stood at something that was seen there (the light, the horizon …) stands at that of the photo
// on which the recipe is laid.

const anchorKinds = ['light', 'horizon', 'waterline', 'focal'] as const
type AnchorKind = (typeof anchorKinds)[number]

/** What an anchor is called. */
const anchorWords: Readonly<Record<AnchorKind, string>> = {
  light: 'light',
  horizon: 'horizon',
  waterline: 'waterline',
  focal: 'centre of interest',
}

const offset = z.number().min(-1000).max(1000)

/** A place of a recipe, and what it is held by: paths of its numbers in the recipe, and how far it is from there in parts of the photo's width and height. */
const anchorSchema = z.strictObject({
  x: z.string().max(200),
  y: z.string().max(200),
  to: z.enum(anchorKinds),
  dx: offset,
  dy: offset,
})
export type Anchor = z.infer<typeof anchorSchema>
export const anchorsSchema = listOf(anchorSchema, 1000, 'anchors')

interface Point {
  readonly x: number
  readonly y: number
}

/** A place in a stack by the paths of its numbers. */
interface PlacedPair {
  readonly x: string
  readonly y: string
  /** Of the object that it is in. */
  readonly within: string
  readonly owner: Effect | Group | SharedMask
}

/** Every place that stands in a stack by itself: origins, aims, middles of masks; not what is drawn point by point. */
function placesOf({ pinned, ...stack }: Stack): PlacedPair[] {
  const of = (parts: Omit<Stack, 'pinned'>, path: string): PlacedPair[] => [
    ...parts.effects.flatMap((effect, i) => {
      const at = `${path}effects.${i}`
      const { shape } = definitionOf(effect.kind).controls
      const steps = (['pattern', 'shape'] as const).flatMap((step) => pairsIn(shape[step], `${at}.controls.${step}`, effect))
      return [...steps, ...inMasks(effect.where, `${at}.where`, effect), ...inMasks(effect.region, `${at}.region`, effect)]
    }),
    ...parts.groups.flatMap((group, i) => inMasks(group.where, `${path}groups.${i}.where`, group)),
    ...parts.shared.flatMap((mask, i) => inMasks(mask.where, `${path}shared.${i}.where`, mask)),
  ]
  return [...of(stack, ''), ...pinned.flatMap((state, i) => of(state, `pinned.${i}.`))]
}

function inMasks(where: Where | null, path: string, owner: Effect | Group | SharedMask): PlacedPair[] {
  return (where?.masks ?? []).flatMap((mask, i) => pairsIn(optionFor(maskSchema, mask), `${path}.masks.${i}`, owner))
}

/** Keys that measure across the photo, each with the one down the photo that belongs to it. */
function pairsIn(schema: z.ZodType | undefined, within: string, owner: Effect | Group | SharedMask): PlacedPair[] {
  if (!(schema instanceof z.ZodObject)) return []
  const shape = schema.shape as Record<string, z.ZodType>
  const measures = (key: string, direction: 'x' | 'y'): boolean => shape[key] !== undefined && rolesOf(shape[key]).measures === direction
  return Object.keys(shape)
    .filter((key) => measures(key, 'x'))
    .map((key) => [key, key === 'x' ? 'y' : key.replace(/X$/, 'Y')] as const)
    .filter(([, key]) => measures(key, 'y'))
    .map(([x, y]) => ({ x: `${within}.${x}`, y: `${within}.${y}`, within, owner }))
}

/** Where a photo has what places can be held by, as it was marked or else read; px of the photo. */
function seenIn(marks: SceneMarks, photo: Size): Readonly<Record<AnchorKind, Point | null>> {
  const middleOfLine = (line: { y: number } | null): Point | null => line && { x: photo.width / 2, y: line.y }
  return {
    light: marks.lights[0] ?? marks.reading?.light ?? null,
    horizon: middleOfLine(horizonOf(marks)),
    waterline: middleOfLine(waterlineOf(marks)),
    focal: marks.focal,
  }
}

/** Parts of the photo's sides: nearer than this a place belongs to what is there. */
const NEAR: Readonly<Record<AnchorKind, number>> = { light: 0.12, focal: 0.06, horizon: 0.06, waterline: 0.06 }

/** What the places of a stack are held by on the photo that it was made on. */
export function anchorsOf(stack: Stack, marks: SceneMarks, photo: Size): Anchor[] {
  const seen = seenIn(marks, photo)
  const heldWith = new Map<string, AnchorKind>()
  return placesOf(stack).flatMap(({ x, y, within }) => {
    const place = { x: readPath(stack, x), y: readPath(stack, y) }
    // The aim of a light goes with the light.
    const to = heldWith.get(within) ?? followed(readWord(stack, `${within}.follows`)) ?? nearestTo(place, seen, photo)
    if (to === undefined) return []
    heldWith.set(within, to)
    const anchor = seen[to]
    if (!anchor) return []
    const isLevel = to === 'horizon' || to === 'waterline'
    const dx = isLevel ? 0 : (place.x - anchor.x) / photo.width
    return [{ x, y, to, dx, dy: (place.y - anchor.y) / photo.height }]
  })
}

function followed(word: string): AnchorKind | undefined {
  if (word === 'horizon' || word === 'waterline') return word
  if (word === FOCAL_POINT) return 'focal'
  return word === '' ? undefined : 'light'
}

function nearestTo(place: Point, seen: Readonly<Record<AnchorKind, Point | null>>, photo: Size): AnchorKind | undefined {
  return (['light', 'focal', 'horizon', 'waterline'] as const).find((kind) => {
    const at = seen[kind]
    if (!at) return false
    const [across, down] = [(place.x - at.x) / photo.width, (place.y - at.y) / photo.height]
    return (kind === 'light' || kind === 'focal' ? Math.hypot(across, down) : Math.abs(down)) < NEAR[kind]
  })
}

/** A stack with its places where its anchors are in a photo, and what could not be placed, in words. */
interface PlacedStack {
  readonly stack: Stack
  readonly unplaced: readonly string[]
}

/**
 * Puts the places of a stack to their anchors in the photo that it is laid on. What is missing there stays where the stack has it.
 * @param stack fitted to the photo
 */
export function placeStack(stack: Stack, anchors: readonly Anchor[], marks: SceneMarks, photo: Size): PlacedStack {
  const seen = seenIn(marks, photo)
  const known = new Map(placesOf(stack).map((place) => [place.y, place]))
  const placed = structuredClone(stack)
  const unplaced = new Set<string>()
  for (const { x, y, to, dx, dy } of anchors) {
    const place = known.get(y)
    if (place?.x !== x) continue
    const at = seen[to]
    if (!at) {
      unplaced.add(`“${nameOf(place.owner)}”: no ${anchorWords[to]} is known in this photo.`)
      continue
    }
    const isLevel = to === 'horizon' || to === 'waterline'
    if (!isLevel) writePath(placed, x, within(at.x + towards(readPath(stack, x) / photo.width, dx, at.x / photo.width) * photo.width))
    writePath(placed, y, within(at.y + dy * photo.height))
  }
  return { stack: placed, unplaced: [...unplaced] }
}

/** A light on the other side of the photo is aimed at the other side. */
function towards(place: number, dx: number, anchor: number): number {
  const before = place - dx - 0.5
  const now = anchor - 0.5
  return before * now < 0 && Math.min(Math.abs(before), Math.abs(now)) > CENTRAL ? -dx : dx
}

/** Part of the width: nearer to the middle than this nothing is on one side. */
const CENTRAL = 0.05

const placeLimits = limitsOf(placeControl('x'))

function within(place: number): number {
  return nearestNumber(place, placeLimits)
}

function nameOf(owner: Effect | Group | SharedMask): string {
  return 'kind' in owner ? nameOfEffect(owner) : owner.name
}

/** What is wrong with anchors, in words; undefined if each is of a place that the stack has. */
export function oddAnchor(stack: Stack, anchors: readonly Anchor[]): string | undefined {
  const known = new Map(placesOf(stack).map(({ x, y }) => [y, x]))
  const odd = anchors.findIndex(({ x, y }) => known.get(y) !== x)
  return odd < 0 ? undefined : `at anchors.${odd}, there is no such place in the recipe`
}
