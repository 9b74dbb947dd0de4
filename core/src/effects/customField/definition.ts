import { z } from 'zod'
import type { GraphNode } from '../../graph/node'
import { angleControl, choiceControl, lengthControl, numberControl, percentControl, seedControl } from '../../model/controls'
import { listOf, referenceTo, withRoles } from '../../model/roles'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { lightFieldNode } from '../../operations/light/lightOfTones/lightOfTones'
import { photoNode } from '../../operations/sources/photo/photo'
import { placeNode } from '../../operations/geometry/place/place'
import { ellipseMaskNode } from '../../operations/masks/shapeMasks/ellipseMask'
import { pictureReference, type PictureReference } from '../../masks/picture/definition'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { outlineMaskNode } from '../../operations/masks/outlineMask/outlineMask'
import { lineMaskNode } from '../../operations/masks/shapeMasks/lineMask'
import { streaksNode } from '../../operations/sources/streaks/streaks'
import { sumFieldsNode } from '../../operations/fields/sumFields/sumFields'
import { stripesNode } from '../../operations/sources/stripes/stripes'
import { turbulenceNode, type TurbulenceParameters } from '../../operations/sources/turbulence/turbulence'
import { steady } from '../../graph/steady'
import { boundedSpecks } from '../boundedSpecks'
import { defineEffect, light, type EffectScene } from '../effectDefinition'
import { originControls, originOf, originPlace } from '../origin'
import { applyStep, fieldOperationSchema, type FieldStep } from './fieldOperations'
import { placingControls } from '../placing'
import { fieldBox, turnedBy } from './fieldBox'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  source: choiceControl('Made from', {
    smooth: 'Noise, smooth',
    billowed: 'Noise, billowed',
    specks: 'Specks',
    stripes: 'Stripes',
    radial: 'A radial field',
    linear: 'A linear field',
    photo: 'The photo’s tones',
    beneath: 'Everything beneath',
    effect: 'Another effect’s pattern',
    picture: 'A picture from a file',
  }),
  /** Id of the effect whose pattern it is made from. */
  of: withRoles(referenceTo('effect'), { byHand: true }).default(null),
  picture: pictureReference.nullable().default(null),
  fit: choiceControl('The picture', { stretch: 'Stretched over the photo', fill: 'Fills the photo in its own proportions' }).default(
    'stretch',
  ),
  sizeX: lengthControl({
    label: 'Across',
    usual: [2, 1500],
    hard: [0.5, 100000],
    step: 1,
    hint: 'Of the largest shapes: one over the base frequency.',
  }),
  sizeY: lengthControl({ label: 'Down', usual: [2, 1500], hard: [0.5, 100000], step: 1 }),
  octaves: numberControl({
    label: 'Octaves',
    unit: '',
    usual: [1, 8],
    hard: [1, 10],
    step: 1,
    whole: true,
    hint: 'Each twice as fine and half as strong.',
  }),
  seed: seedControl(),
  tiling: choiceControl('Tiling', { off: 'Endless', frame: 'Seamless at the sides of the photo' }),
  turn: angleControl('Rotation', { noise: 'rotation' }),
  speed: lengthControl({
    label: 'Moves',
    usual: [0, 1500],
    hard: [0, 100000],
    step: 5,
    hint: 'How far the noise goes in one loop of Play.',
  }).default(0),
  heading: angleControl('Towards').default(90),
  ...placingControls,
  density: numberControl({ label: 'Density', unit: '', usual: [0, 100], hard: [0, 2000], step: 1, hint: 'Specks in the frame, in tens.' }),
  part: percentControl('Bright part', 'Of a stripe.'),
  ...originControls,
})

const shape = z.strictObject({ steps: listOf(fieldOperationSchema, 24, 'operations') })

const controls = z.strictObject({ pattern, shape })
export type CustomFieldControls = z.infer<typeof controls>

const noise = ['smooth', 'billowed']
const appliesTo: Readonly<Record<string, readonly string[]>> = {
  'pattern.sizeX': [...noise, 'radial', 'specks'],
  'pattern.sizeY': [...noise, 'radial', 'stripes'],
  'pattern.octaves': noise,
  'pattern.tiling': noise,
  'pattern.speed': noise,
  'pattern.heading': noise,
  'pattern.seed': [...noise, 'specks'],
  'pattern.turn': [...noise, 'stripes', 'linear', 'picture'],
  'pattern.enlarge': ['picture'],
  'pattern.moveX': [...noise, 'picture'],
  'pattern.moveY': [...noise, 'picture'],
  'pattern.fit': ['picture'],
  'pattern.density': ['specks'],
  'pattern.part': ['stripes'],
}

const MOVING = ['speed', 'heading', 'moveX', 'moveY'].map((key) => `pattern.${key}`)

export const customField = defineEffect({
  kind: 'customField',
  family: 'own',
  label: 'Custom field',
  place: 'middle',
  shownPart: 1,
  controls,
  dials: ['pattern.sizeX', 'pattern.sizeY', 'pattern.octaves', 'pattern.density', 'pattern.part', 'pattern.turn'],
  places: [{ ...originPlace, label: 'Centre' }],
  box: fieldBox,
  applies: (path, controls) => {
    const { pattern } = controls
    // What meets itself at the sides of the photo stays where it is.
    if (CENTRE.includes(path)) return hasCentre(controls)
    if (MOVING.includes(path) && noise.includes(pattern.source) && pattern.tiling === 'frame') return false
    return appliesTo[path]?.includes(pattern.source) ?? true
  },
  startingLooks,
  inWords: ({ pattern }) => {
    if (pattern.source === 'effect' && pattern.of === null) return 'Open Pattern and choose the effect that it is made from.'
    return pattern.source === 'picture' && !pattern.picture ? 'Open Pattern and choose a picture.' : ''
  },
  summary: ({ pattern, shape }) => ({
    pattern: noise.includes(pattern.source) ? `${pattern.source} noise, seed ${pattern.seed}` : pattern.source,
    shape: shape.steps.length === 0 ? 'as it is' : shape.steps.map(({ kind }) => words[kind]).join(', '),
  }),
  pattern: (controls, scene) => rawField(controls, scene),
  contribute: (controls, scene) => light(fieldAfter(controls, scene, controls.shape.steps.length)),
})

const words: Readonly<Record<FieldStep['kind'], string>> = {
  blur: 'blur',
  motion: 'motion',
  zoom: 'zoom',
  spin: 'spin',
  maximum: 'discs',
  minimum: 'thinner',
  levels: 'levels',
  curve: 'curve',
  polar: 'polar',
  place: 'placed',
  second: 'another noise',
  bend: 'bent',
  fork: 'forked',
  line: 'line',
  halo: 'halo',
  highPass: 'high-pass',
  invert: 'inverted',
  fade: 'faded',
  round: 'rounded off',
}

/** Steps that are done about the centre. */
const ABOUT_CENTRE: readonly FieldStep['kind'][] = ['zoom', 'spin', 'polar', 'place', 'round']
const CENTRE = ['pattern.follows', 'pattern.x', 'pattern.y']

/** Whether the centre counts: for what lies about it, what is turned about it, and what is done about it. */
function hasCentre({ pattern: { source, turn }, shape }: CustomFieldControls): boolean {
  return source === 'radial' || (noise.includes(source) && turn !== 0) || shape.steps.some(({ kind }) => ABOUT_CENTRE.includes(kind))
}

/** The field after the first `count` steps. */
function fieldAfter(controls: CustomFieldControls, scene: EffectScene, count: number): GraphNode {
  const centre = { ...originOf(controls.pattern, scene.marks), width: scene.width, height: scene.height }
  return controls.shape.steps.slice(0, count).reduce((field, step) => applyStep(field, step, centre), rawField(controls, scene))
}

function rawField({ pattern }: CustomFieldControls, scene: EffectScene): GraphNode {
  const { width, height, marks } = scene
  const { x, y } = originOf(pattern, marks)
  switch (pattern.source) {
    case 'smooth':
    case 'billowed': {
      // Noise that hardly changes downwards meets itself at the sides only; a tile as high as the photo would make it change once.
      const tall = pattern.sizeY > height ? 16 * pattern.sizeY : height
      const tile = pattern.tiling === 'frame' ? { x: 0, y: 0, width, height: tall } : null
      const { about, move } = tile ? { about: { x, y }, move: undefined } : turnedWithin(pattern, { x, y }, scene)
      const field = inItsLoop({ ...pattern, move }, scene.phase, {
        type: pattern.source,
        frequencyX: steady(1 / pattern.sizeX),
        frequencyY: steady(1 / pattern.sizeY),
        octaves: pattern.octaves,
        seed: pattern.seed,
        channel: 'red',
        ...(move ? { move } : {}),
        tile,
      })
      return placeNode(field, { enlarge: 1, turn: pattern.turn, moveX: 0, moveY: 0, centreX: about.x, centreY: about.y })
    }
    case 'specks':
      return specks(pattern, scene)
    case 'stripes':
      return stripesNode({ period: pattern.sizeY, part: pattern.part / 100, turn: pattern.turn, shift: scene.phase })
    case 'radial':
      return scaleFieldNode(ellipseMaskNode({ x, y, radiusX: pattern.sizeX, radiusY: pattern.sizeY, turn: 0, softness: 1 }), 1)
    case 'linear': {
      const radians = (pattern.turn * Math.PI) / 180
      const [dx, dy] = [Math.cos(radians) * width * 0.5, -Math.sin(radians) * height * 0.5]
      const [fromX, fromY] = [steady(width / 2 - dx), steady(height / 2 - dy)]
      return scaleFieldNode(lineMaskNode({ x: fromX, y: fromY, toX: steady(width / 2 + dx), toY: steady(height / 2 + dy) }), 1)
    }
    case 'photo':
      return lightFieldNode(scene.picture)
    case 'beneath':
      return lightFieldNode(scene.beneath)
    case 'effect':
      return scene.otherEffect(pattern.of)?.field ?? constantFieldNode(0)
    case 'picture':
      return pattern.picture ? pictureOver(pattern.picture, pattern, scene) : constantFieldNode(0)
  }
}

/** A picture over the photo, stretched or so that it covers it in its own proportions, and then placed. Where it does not reach there is no light. */
function pictureOver(
  picture: PictureReference,
  { fit, enlarge: percent, turn, moveX, moveY }: CustomFieldControls['pattern'],
  { width, height }: EffectScene,
): GraphNode {
  const wider = picture.width / picture.height / (width / height)
  const factors = fit === 'stretch' ? { wide: 1, high: 1 } : { wide: steady(Math.max(1, wider)), high: steady(Math.max(1, 1 / wider)) }
  const [enlarge, centreX, centreY] = [percent / 100, width / 2, height / 2]
  const field = lightFieldNode(placeNode(photoNode(picture.id), { enlarge, ...factors, turn, moveX, moveY, centreX, centreY }))
  if (enlarge === 1 && turn === 0 && moveX === 0 && moveY === 0) return field
  const radians = (turn * Math.PI) / 180
  const [along, across] = [0.5 * width * factors.wide * enlarge, 0.5 * height * factors.high * enlarge]
  const corners = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([u = 0, v = 0]) => {
    const [dx, dy] = [u * along, v * across]
    const x = steady(centreX + moveX + dx * Math.cos(radians) + dy * Math.sin(radians))
    const y = steady(centreY + moveY - dx * Math.sin(radians) + dy * Math.cos(radians))
    return { x, y, inX: 0, inY: 0, outX: 0, outY: 0 }
  })
  return joinFieldsNode([field, scaleFieldNode(outlineMaskNode([{ hole: false, corners }]), 1)], 'product')
}

interface Way {
  readonly x: number
  readonly y: number
}

/**
 * About what place noise is turned, and how far it is moved before. Nothing is known of it beyond the photo, so that it is turned about the middle as soon as it is moved, or its own
 * centre lies outside: it is the same noise.
 */
function turnedWithin(
  { turn, moveX, moveY }: CustomFieldControls['pattern'],
  centre: Way,
  { width, height }: EffectScene,
): { readonly about: Way; readonly move: Way | undefined } {
  const inside = centre.x >= 0 && centre.x <= width && centre.y >= 0 && centre.y <= height
  const still = moveX === 0 && moveY === 0
  if (still && (inside || turn === 0)) return { about: centre, move: undefined }
  const about = { x: width / 2, y: height / 2 }
  const [dx, dy] = [about.x - centre.x, about.y - centre.y]
  const [backX, backY] = turnedBy(-turn, dx, dy)
  return { about, move: { x: steady(moveX + dx - backX), y: steady(moveY + dy - backY) } }
}

/** About where the values of noise lie; what is mixed of two of them keeps its contrast about that. */
const MIDDLE = { smooth: 0.5, billowed: 0.3 }

/** Noise that moves, and goes over into itself one loop earlier while it does, so that the end meets the beginning. */
function inItsLoop(
  { speed, heading, tiling, move }: CustomFieldControls['pattern'] & { readonly move: Way | undefined },
  phase: number,
  noise: TurbulenceParameters,
): GraphNode {
  if (speed === 0 || tiling === 'frame' || phase === 0) return turbulenceNode(noise)
  const radians = (heading * Math.PI) / 180
  const at = (loops: number): GraphNode =>
    turbulenceNode({
      ...noise,
      move: {
        x: steady((move?.x ?? 0) + loops * speed * Math.cos(radians)),
        y: steady((move?.y ?? 0) - loops * speed * Math.sin(radians)),
      },
    })
  const even = steady(1 / Math.sqrt(phase * phase + (1 - phase) * (1 - phase)))
  return sumFieldsNode([
    scaleFieldNode(at(phase), steady(even * (1 - phase))),
    scaleFieldNode(at(phase - 1), steady(even * phase)),
    constantFieldNode(steady(MIDDLE[noise.type] * (1 - even))),
  ])
}

function specks(pattern: CustomFieldControls['pattern'], { width, height }: EffectScene): GraphNode {
  const spacing = steady(Math.sqrt((width * height) / Math.max(0.01, 10 * pattern.density)))
  const sigma = Math.max(0.4, 0.3 * Math.min(pattern.sizeX, 400))
  const drawn = boundedSpecks({ spacing, sigma, blur: 0, length: 0 }, { width, height })
  const even = { lengthVariation: 0, taper: 0, angle: 0, bend: 0, gustScale: 100, brightness: 1, brightnessVariation: 0.7 }
  return streaksNode([{ seed: pattern.seed, ...drawn, ...even, shiftX: 0, shiftY: 0, turn: 0, centreX: 0, centreY: 0 }])
}
