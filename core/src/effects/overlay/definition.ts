import { z } from 'zod'
import { rgbFromHex } from '../../colour/hex'
import { steady } from '../../graph/steady'
import type { GraphNode } from '../../graph/node'
import { pictureReference, type PictureReference } from '../../masks/picture/definition'
import { angleControl, choiceControl, colourControl, lengthControl, percentControl, placeControl } from '../../model/controls'
import type { PatternBox } from '../../model/patternBox'
import { gaussianBlurNode } from '../../operations/blurs/gaussianBlur/gaussianBlur'
import { joinFieldsNode, scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { lightColoursNode, lightFieldNode, uncoveredNode } from '../../operations/light/lightOfTones/lightOfTones'
import { inSpaceNode } from '../../operations/colour/inSpace/inSpace'
import { invertedNode } from '../../operations/masks/combineMasks/combineMasks'
import { outlineMaskNode } from '../../operations/masks/outlineMask/outlineMask'
import { similarMaskNode } from '../../operations/masks/similarMask/similarMask'
import { constantFieldNode } from '../../operations/sources/constantField/constantField'
import { laidPictureNode } from '../../operations/sources/laidPicture/laidPicture'
import { coverId, isCutOut } from '../../photo/pictureIds'
import { defineEffect, light } from '../effectDefinition'
import { startingLooks } from './startingLooks'

const pattern = z.strictObject({
  picture: pictureReference.nullable(),
  x: placeControl('x'),
  y: placeControl('y'),
  width: lengthControl({ label: 'Width', usual: [50, 6000], hard: [1, 100000], step: 1, hint: 'On the photo; it keeps its proportions.' }),
  turn: angleControl('Rotation'),
  side: choiceControl('Seen', { front: 'As it is', behind: 'Left and right exchanged' }),
})

const shape = z.strictObject({
  without: choiceControl('Left out of it', { nothing: 'Nothing', dark: 'What is dark, as light on nothing', colour: 'A colour' }),
  colour: colourControl('Colour'),
  reach: percentControl('Reach', 'How far from that colour others are left out too.'),
  border: lengthControl({ label: 'Feather', usual: [0, 200], hard: [0, 5000], step: 1 }),
  blur: lengthControl({ label: 'Blur', usual: [0, 40], hard: [0, 1000], step: 0.1 }),
})

const controls = z.strictObject({ pattern, shape })
export type OverlayControls = z.infer<typeof controls>

/** Distance in OKLab that a reach of 100 % stands for. */
const FARTHEST_COLOUR = 0.6
/** px: farther than anything on a photo. */
const EVERYWHERE = 1e9

const box: PatternBox<OverlayControls> = {
  paths: ['pattern.x', 'pattern.y', 'pattern.width', 'pattern.turn'],
  lacks: ['stretch'],
  read({ pattern: { picture, x, y, width, turn } }) {
    if (!picture) return undefined
    const stretch = picture.width / picture.height
    return { x, y, size: width / Math.sqrt(stretch), stretch, turn }
  },
  write({ pattern }, { x, y, size, turn }) {
    if (pattern.picture) Object.assign(pattern, { x, y, turn, width: size * Math.sqrt(pattern.picture.width / pattern.picture.height) })
  },
}

/** A picture from a file, laid over the photo with its own colours. */
export const overlay = defineEffect({
  kind: 'overlay',
  family: 'own',
  label: 'Overlay picture',
  place: 'middle',
  shownPart: 1,
  controls,
  ownColours: 'those of the other picture',
  dials: ['pattern.width', 'pattern.turn', 'shape.reach', 'shape.border', 'shape.blur'],
  applies: (path, { shape }) => (path === 'shape.reach' || path === 'shape.colour' ? shape.without === 'colour' : true),
  box,
  startsOn: ({ pattern, shape }, { width, height }) => ({ pattern: { ...pattern, x: steady(width / 2), y: steady(height / 2) }, shape }),
  startingLooks,
  inWords: ({ pattern }) => (pattern.picture ? '' : 'Open Pattern and choose a picture.'),
  summary: ({ pattern, shape }) => ({
    pattern: pattern.picture ? `${pattern.picture.fileName}, ${Math.round(pattern.width)} px wide` : 'no picture chosen',
    shape: { nothing: 'all of it', dark: 'without what is dark', colour: 'without one colour' }[shape.without],
  }),
  pattern: ({ pattern }) => (pattern.picture ? lightFieldNode(laid(pattern.picture.id, pattern)) : constantFieldNode(0)),
  contribute({ pattern, shape }, { working }) {
    const { picture } = pattern
    if (!picture) return light(constantFieldNode(0))
    const given = gaussianBlurNode(inSpaceNode(laid(picture.id, pattern), 'srgb', working), shape.blur)
    const cover = isCutOut(picture.id) ? gaussianBlurNode(laid(coverId(picture.id), pattern), shape.blur) : undefined
    const within = withinBorders(picture, pattern, shape.border + shape.blur)
    // Light on nothing is what is given off as it is; everything else has its colours, as far as it is there.
    if (shape.without === 'dark') return light(joinFieldsNode([within, lightFieldNode(given)], 'product'), () => lightColoursNode(given))
    const tones = cover ? uncoveredNode(given, cover) : given
    return light(joinFieldsNode([within, ...(cover ? [lightFieldNode(cover, true)] : []), seen(tones, shape)], 'product'), () => tones)
  },
})

function laid(id: string, pattern: OverlayControls['pattern']): GraphNode {
  const { x, y, width, turn, side } = pattern
  return laidPictureNode({ picture: id, x, y, width, height: heightOf(pattern), turn, flipped: side === 'behind' })
}

function heightOf({ picture, width }: OverlayControls['pattern']): number {
  return picture ? steady((width * picture.height) / picture.width) : width
}

/** What of it is not left out. */
function seen(tones: GraphNode, { without, colour, reach }: OverlayControls['shape']): GraphNode {
  if (without === 'nothing' || reach === 0) return constantFieldNode(1)
  const alike = similarMaskNode(tones, {
    taps: [{ x: 0, y: 0, colour: rgbFromHex(colour) }],
    reachPlace: EVERYWHERE,
    reachColour: steady((FARTHEST_COLOUR * reach) / 100),
  })
  return scaleFieldNode(invertedNode(alike), 1)
}

/** 1 within its borders, 0 outside, softly over some px inside of them. */
function withinBorders(picture: PictureReference, pattern: OverlayControls['pattern'], soft: number): GraphNode {
  const { x, y, width, turn } = pattern
  const height = heightOf({ ...pattern, picture })
  // The blur reaches as far out as in: what it blurs is smaller by that.
  const inner = (side: number): number => Math.max(0.05 * side, side - 2 * soft)
  const radians = (turn * Math.PI) / 180
  const [sin, cos] = [Math.sin(radians), Math.cos(radians)]
  const corners = [
    [-0.5, -0.5],
    [0.5, -0.5],
    [0.5, 0.5],
    [-0.5, 0.5],
  ].map(([u = 0, v = 0]) => {
    const [dx, dy] = [u * inner(width), v * inner(height)]
    return { x: steady(x + dx * cos + dy * sin), y: steady(y - dx * sin + dy * cos), inX: 0, inY: 0, outX: 0, outY: 0 }
  })
  return scaleFieldNode(gaussianBlurNode(outlineMaskNode([{ hole: false, corners }]), soft / 2), 1)
}
