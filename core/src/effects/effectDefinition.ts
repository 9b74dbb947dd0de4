import type { z } from 'zod'
import type { ColourSpace } from '../colour/colourSpace'
import type { Rgb } from '../colour/hex'
import type { GraphNode } from '../graph/node'
import type { Colour, DepthPlace, Mix, Where } from '../model/look'
import type { Frame } from '../model/frame'
import type { SceneMarks } from '../model/marks'
import type { PatternBox } from '../model/patternBox'
import type { Size } from '../planes/grid'

/** Schema of the controls of the first two steps; what is in them, each kind says itself. */
export type ControlsSchema = z.ZodObject<{ pattern: z.ZodObject; shape: z.ZodObject }>

/** Light on nothing: a field whose intensity is its alpha, in the effect's colour or in colours of its own. */
export interface Light {
  readonly gives: 'light'
  readonly field: GraphNode
  /** Colours that differ from place to place, as tones; nothing if the effect's colour is its only one. */
  colours(): GraphNode | undefined
  /** What a ramp of colours runs over, where that is not the field. */
  readonly ramped?: GraphNode
}

/** A changed picture of what lies beneath, mixed in as far as the field goes. Small pictures show its difference on mid-grey. */
interface Correction {
  readonly gives: 'correction'
  readonly field: GraphNode
  picture(): GraphNode
  /** What is done to the picture once it is mixed in. `amount` 0-1 and `mask` are those of the effect. */
  after?(mixed: GraphNode, held: { readonly amount: number; readonly mask: GraphNode | undefined }): GraphNode
}

/** Air that is taken out of what lies beneath, as far as the field goes. */
interface Clearing {
  readonly gives: 'clearing'
  readonly field: GraphNode
  /** 0-1: part of the darkest channel of each pixel that stays air. */
  readonly kept: number
}

/** What an effect brings to the picture. Its colours are made only when they are asked for: others may read its field alone. */
export type Contribution = Light | Correction | Clearing

/** Light in the effect's colour, or in colours of its own. */
export function light(field: GraphNode, colours: Light['colours'] = () => undefined): Light {
  return { gives: 'light', field, colours }
}

/** What a pattern may know of the scene: the size of the photo, its marks, and the distance of everything in it. */
export interface EffectScene extends Size {
  /** What is shown of the photo; what belongs to the frame goes by it. */
  readonly frame: Frame
  readonly marks: SceneMarks
  /** Distance in metres, as a graph; made only when it is asked for. */
  readonly distance: GraphNode
  /** The same, if the scene says anything about it: a depth picture or a horizon. */
  readonly knownDistance: GraphNode | undefined
  /** The space that the scene is worked on in; other pictures are opened in sRGB. */
  readonly working: ColourSpace
  /** 0-1: where in its loop the pattern is. 1 is 0 again. */
  readonly phase: number
  /** The photo as it came, and everything beneath the effect, as tones. */
  readonly picture: GraphNode
  readonly beneath: GraphNode
  /** Mask of the effect's own region; undefined while nothing is in its list. */
  readonly region: GraphNode | undefined
  /** What another effect of the scene draws, without its mask: its field and its colours. Undefined if it is not there, or reads a third one. */
  otherEffect(id: string | null): { readonly field: GraphNode; colours(): GraphNode } | undefined
}

/** A named set of starting values; lengths are for a photo of 6 megapixels. */
export interface StartingLook<C> {
  /** What effects keep of it: it stays when its word changes. Its own among the looks of the kind. */
  readonly id: string
  /** The word for it on the screen. */
  readonly name: string
  readonly controls: C
  readonly colour: Omit<Colour, OptionalColour> & Partial<Pick<Colour, OptionalColour>>
  readonly where: Where
  readonly region?: Where
  readonly mix: Mix
}

type OptionalColour = 'kelvin' | 'ramp' | 'balance'

/** A place that can be dragged: paths of its x and y, and of the mark that it follows, if it can. */
export interface EffectPlace {
  readonly label: string
  readonly x: string
  readonly y: string
  readonly follows?: string
}

/** An angle that is turned on the photo by an arrow. */
interface EffectDirection {
  readonly label: string
  /** Path of the control. */
  readonly path: string
  /** Where the arrow points for a value of the control, degrees counter-clockwise from the x axis; and back. */
  arrow(value: number): number
  value(arrow: number): number
}

export type EffectFamily = 'weather' | 'light' | 'finish' | 'own'

/** The controls of some kind. */
export type EffectControls = z.infer<ControlsSchema>

/** All that one kind of effect is. Everything else (tint, where, mix, interface, storage) is generic. */
export interface EffectDefinition<K extends string = string, S extends ControlsSchema = ControlsSchema> {
  readonly kind: K
  /** The word for it on the screen. */
  readonly label: string
  /** Under which heading it is offered. */
  readonly family: EffectFamily
  readonly place: DepthPlace
  /** Where its colours come from, for a kind that has colours of its own. */
  readonly ownColours?: string | ((controls: z.infer<S>) => string | undefined)
  /** Part of the photo's width that a small picture of it shows: specks are seen close up, banks as a whole. */
  readonly shownPart: number
  /** Controls of the first two steps. */
  readonly controls: S
  /** Paths into the controls of what steers the whole effect, in the order shown. */
  readonly dials: readonly string[]
  /** The two of its controls that one drag turns, up and down and sideways, where they are not its first two dials. */
  readonly pulls?: readonly [upDown: string, sideways: string]
  /** Whether it is made from another effect and drawn in that one's colours: it is offered there, and no third one can be made from it. */
  readonly madeFromEffect?: boolean
  /** Places on the photo that can be dragged: paths of their x and y. */
  readonly places?: readonly EffectPlace[]
  /** Whether its places belong to the frame: they keep their part of it when the photo is cropped otherwise. */
  readonly inFrame?: true
  /** An angle that is turned on the photo. */
  readonly direction?: EffectDirection
  /** A pattern without a place of its own that is moved, pulled and turned on the photo by a box. */
  readonly box?: PatternBox<z.infer<S>>
  /** Whether its first place begins at the light of the photo, as it was marked or read. */
  startsAtLight?(controls: z.infer<S>): boolean
  /** Whether what is seen there is the light itself, which then has to lie in the frame. */
  readonly showsItsLight?: boolean
  /**
   * For what takes its light from the brights of the photo: the control that says from which tones on, per cent, whether these are linear, and the control of its strength. On a
   * photo whose brights are dark it starts from less, and stronger. `rises`, 0-1: how far it goes up to the few brightest where much of the photo is bright,
   * and it is weaker there.
   */
  readonly takesBrights?: { readonly from: string; readonly linear?: boolean; readonly strength: string; readonly rises: number }
  /** What its own region is for, if it has one. */
  readonly region?: { readonly label: string; readonly hint: string; readonly step: 'pattern' | 'shape' }
  /** What starting values are on a photo of this size, where practice has another law than that of all lengths. @param controls with lengths that are fitted already */
  startsOn?(controls: z.infer<S>, photo: Size): z.infer<S>
  /** A look that changes nothing, for whoever wants to begin from there. */
  readonly neutral?: StartingLook<z.infer<S>>
  /** The first is what a new effect starts with. */
  readonly startingLooks: readonly StartingLook<z.infer<S>>[]
  /** Whether a control counts while the others are as they are; those that do not are not shown. All do if this is not given. */
  applies?(path: string, controls: z.infer<S>): boolean
  /** What the settings mean, in plain words. */
  inWords?(controls: z.infer<S>, scene: Pick<EffectScene, 'width' | 'height' | 'marks'>): string
  /** A few words about the current pattern and shape, for the list of steps. */
  summary(controls: z.infer<S>): { readonly pattern: string; readonly shape: string }
  /** The raw field, before it is shaped. */
  pattern(controls: z.infer<S>, scene: EffectScene): GraphNode
  /** What it brings to the picture. @param tint its colour, sRGB-encoded */
  contribute(controls: z.infer<S>, scene: EffectScene, tint: Rgb): Contribution
}

/** Where the amount of an effect stands, for what names controls by their path. */
export const AMOUNT_PATH = 'mix.amount'

/** Paths of the one or two controls that a drag turns, of those that count now: up and down, and sideways. What has no dial is turned by its amount. */
export function pulledControls(definition: EffectDefinition, controls: EffectControls): readonly [upDown: string, sideways?: string] {
  const { pulls, dials, applies } = definition
  const [upDown = AMOUNT_PATH, sideways] = (pulls ?? dials).filter((path) => applies?.(path, controls) ?? true)
  return sideways === undefined ? [upDown] : [upDown, sideways]
}

/** Id of the look that changes nothing. */
export const NEUTRAL = 'neutral'

/** All that an effect of the kind can begin with: what changes nothing first, if the kind has that. */
export function looksOf<C>({
  neutral,
  startingLooks,
}: {
  readonly neutral?: StartingLook<C>
  readonly startingLooks: readonly StartingLook<C>[]
}): readonly StartingLook<C>[] {
  return neutral ? [neutral, ...startingLooks] : startingLooks
}

/** A kind of effect, with the types of its controls taken from their schema. */
export function defineEffect<K extends string, S extends ControlsSchema>(definition: EffectDefinition<K, S>): EffectDefinition<K, S> {
  return definition
}
