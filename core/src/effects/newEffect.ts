import { encodedOf, linearOf } from '../colour/hex'
import { frameOf, middleOf, type Frame } from '../model/frame'
import { fitBetween, fitLengths } from '../model/lengths'
import { whereSchema, type DepthPlace } from '../model/look'
import { horizonOf, type SceneMarks } from '../model/marks'
import { writePath } from '../model/paths'
import type { Size } from '../planes/grid'
import type { Reading } from '../model/reading'
import { looksOf, type EffectControls, type EffectDefinition } from './effectDefinition'
import { definitionOf, effectSchema, type Effect, type EffectKind } from './registry'

/** The photo that the looks are written for: lengths follow the megapixels of another, places its sides. */
const WRITTEN_FOR: Size = { width: 3000, height: 2000 }

interface NewEffectOptions {
  readonly kind: EffectKind
  /** Id of one of the kind's starting looks; the first if not given. */
  readonly look?: string
  readonly place?: DepthPlace
  /** What is marked or read in the photo: what shines begins at its light. */
  readonly marks?: SceneMarks
  /** What is shown of the photo, if not all: what belongs to the frame begins in its middle. */
  readonly frame?: Frame
  /** Own id of the effect. */
  readonly id: string
}

/** An effect with its starting values, lengths fitted to the photo. @throws Error if the kind or the look does not exist */
export function newEffect(photo: Size, options: NewEffectOptions): Effect {
  const definition = definitionOf(options.kind)
  const look = options.look ? looksOf(definition).find(({ id }) => id === options.look) : definition.startingLooks[0]
  if (!look) throw new Error(`${definition.label} has no starting look “${options.look}”.`)
  const fit = fitBetween(WRITTEN_FOR, photo)
  const made = effectSchema.parse({
    id: options.id,
    kind: definition.kind,
    look: look.id,
    name: '',
    on: true,
    place: options.place ?? definition.place,
    controls: startingControls(definition, fitLengths(definition.controls, look.controls, fit), photo),
    group: null,
    colour: look.colour,
    where: fitLengths(whereSchema, look.where, fit),
    region: look.region ? fitLengths(whereSchema, look.region, fit) : null,
    mix: look.mix,
  })
  if (definition.inFrame) inTheMiddle(made, definition, options.frame ?? frameOf(photo, null))
  return options.marks ? suitedTo(made, definition, photo, options.marks) : made
}

function inTheMiddle({ controls }: Effect, { places = [] }: EffectDefinition, frame: Frame): void {
  const { x, y } = middleOf(frame)
  for (const place of places) {
    writePath(controls, place.x, x)
    writePath(controls, place.y, y)
  }
}

function startingControls({ startsOn }: EffectDefinition, controls: EffectControls, photo: Size): EffectControls {
  return startsOn ? startsOn(controls as never, photo) : controls
}

function suitedTo(effect: Effect, definition: EffectDefinition, photo: Size, marks: SceneMarks): Effect {
  if (marks.reading) toItsBrights(effect, definition, marks.reading.brights)
  return atItsLight(effect, definition, photo, marks)
}

/** What follows a light begins at the first that is marked, or where one was read; without one at what is brightest, above the horizon. */
function atItsLight(
  effect: Effect,
  { startsAtLight, showsItsLight, places = [] }: EffectDefinition,
  photo: Size,
  marks: SceneMarks,
): Effect {
  const place = places.find(({ follows }) => follows)
  if (!place?.follows || !startsAtLight?.(effect.controls as never)) return effect
  const controls = effect.controls.pattern as Record<string, unknown>
  const [x, y, follows] = [place.x, place.y, place.follows].map((path) => path.replace(/^pattern\./, '')) as [string, string, string]
  const { light, brightest } = marks.reading ?? { light: null, brightest: null }
  const read = light ?? brightest
  const horizon = horizonOf(marks)
  if (marks.lights[0]) {
    controls[follows] = marks.lights[0].id
    return effect
  }
  if (read) {
    controls[x] = showsItsLight ? inFrame(read.x, photo.width) : read.x
    controls[y] = showsItsLight ? inFrame(read.y, photo.height) : read.y
  }
  if (!light && horizon) controls[y] = Math.min(controls[y] as number, horizon.y - ABOVE_HORIZON * photo.height)
  return effect
}

const ABOVE_HORIZON = 0.08
/** Of the width or height: what shines itself starts at least so far from the border. */
const FROM_BORDER = 0.04

function inFrame(place: number, side: number): number {
  return Math.round(Math.max(FROM_BORDER * side, Math.min((1 - FROM_BORDER) * side, place)))
}

/** Starting looks are made for photos whose brights are at least so bright, sRGB-encoded; for darker ones they are not taken for darker than this. */
const USUAL_BRIGHTS = 0.8
const LEAST_BRIGHTS = 0.2
/** The same for what is bright in more than a few places. */
const USUAL_REST = 0.55
const MOST_STRONGER = 1.6
/** Also where the sun itself is white over many places, what is around it has room. */
const LEAST_ROOM = 0.4
/** Per cent: no tone from which light is taken starts higher. */
const MOST_FROM = 95

/** Tones from which light is taken, and what is kept out of the dark, by how bright the brightest of the photo are, and how many they are. */
function toItsBrights(effect: Effect, { takesBrights, applies }: EffectDefinition, { few, many }: Reading['brights']): void {
  const part = Math.min(1, Math.max(LEAST_BRIGHTS, encodedOf(few)) / USUAL_BRIGHTS)
  // Shafts, of the same kind as streaming brights, take no light from the photo.
  if (takesBrights && (applies?.(takesBrights.from, effect.controls as never) ?? true)) {
    const { from, linear, strength, rises } = takesBrights
    const less = linear ? linearOf([part * USUAL_BRIGHTS, 0, 0])[0] / linearOf([USUAL_BRIGHTS, 0, 0])[0] : part
    // Of a wide bright sky only the brightest part counts: all of it would be one white patch.
    const most = 100 * (linear ? many : encodedOf(many))
    changeControl(effect, from, (value) => Math.round(Math.min(MOST_FROM, value * less + rises * Math.max(0, most - value * less))))
    // Nor does it need to add as much where there is hardly any room up to white.
    const room = rises > 0 ? Math.min(1, Math.max(LEAST_ROOM, Math.sqrt((1 - encodedOf(many)) / (1 - USUAL_REST)))) : 1
    changeControl(effect, strength, (value) => Math.round(value * room * Math.min(MOST_STRONGER, 1 / part)))
  }
  // In a forest only the gaps are bright: what keeps out of its shadows must not keep out of all the rest.
  const rest = many > 0 ? Math.min(part, Math.max(LEAST_BRIGHTS, encodedOf(many)) / USUAL_REST) : part
  for (const mask of [...effect.where.masks, ...(effect.region?.masks ?? [])]) {
    if (mask.kind === 'luminosity' && mask.curve === 'range')
      mask.handles = mask.handles.map((at) => (at < 1 ? Number((at * rest).toFixed(3)) : at)) as typeof mask.handles
  }
}

function changeControl(effect: Effect, path: string, change: (value: number) => number): void {
  const [step, name] = path.split('.') as ['pattern' | 'shape', string]
  const controls = effect.controls[step] as Record<string, unknown>
  controls[name] = change(controls[name] as number)
}
