import type { z } from 'zod'
import type { Rgb } from '../colour/hex'
import type { GraphNode } from '../graph/node'
import type { Colour, DepthPlace, Mix, Where } from '../model/look'
import type { SceneMarks } from '../model/marks'
import type { Size } from '../planes/grid'

/** Controls of the first two steps; what is in them, each kind says itself. */
interface EffectControls {
  readonly pattern: object
  readonly shape: object
}

/** What a pattern may know of the scene: the size of the photo, its marks, and the distance of everything in it. */
export interface EffectScene extends Size {
  readonly marks: SceneMarks
  /** Distance in metres, as a graph; made only when it is asked for. */
  readonly distance: GraphNode
  /** The same, if the scene says anything about it: a depth picture or a horizon. */
  readonly knownDistance: GraphNode | undefined
  /** 0-1: where in its loop the pattern is. 1 is 0 again. */
  readonly phase: number
  /** The photo as it came, and everything beneath the effect, as tones. */
  readonly picture: GraphNode
  readonly beneath: GraphNode
  /** Mask of the effect's own region; undefined while nothing is in its list. */
  readonly region: GraphNode | undefined
  /** What another effect of the scene draws, without its mask: its field and its colours. Undefined if it is not there, or reads a third one. */
  otherEffect(id: string | null): { readonly field: GraphNode; readonly colours: GraphNode } | undefined
}

/** A named set of starting values; lengths are for a photo of 6 megapixels. */
export interface StartingLook<C> {
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

export type EffectFamily = 'weather' | 'light' | 'own'

/** All that one kind of effect is. Everything else (tint, where, mix, interface, storage) is generic. */
export interface EffectDefinition<K extends string = string, C extends EffectControls = EffectControls> {
  readonly kind: K
  /** The word for it on the screen. */
  readonly label: string
  /** Under which heading it is offered. */
  readonly family: EffectFamily
  readonly place: DepthPlace
  /** Where its colours come from, for a kind that has colours of its own. */
  readonly ownColours?: string
  /** Part of the photo's width that a small picture of it shows: specks are seen close up, banks as a whole. */
  readonly shownPart: number
  /** Controls of the first two steps, as `{ pattern, shape }`. */
  readonly controls: z.ZodType<C>
  /** Paths into the controls of what steers the whole effect, in the order shown. */
  readonly dials: readonly string[]
  /** The effect whose drawing it takes; a kind that has this is made from that effect, and has its colours. */
  mirrors?(controls: C): string | null
  /** Places on the photo that can be dragged: paths of their x and y. */
  readonly places?: readonly EffectPlace[]
  /** Paths of what is drawn or placed on the photo by hand; a copied look leaves it where it is. */
  readonly drawn?: readonly string[]
  /** What its own region is for, if it has one. */
  readonly region?: { readonly label: string; readonly hint: string; readonly step: 'pattern' | 'shape' }
  /** The first is what a new effect starts with. */
  readonly startingLooks: readonly StartingLook<C>[]
  /** Whether a control counts while the others are as they are; those that do not are not shown. All do if this is not given. */
  applies?(path: string, controls: C): boolean
  /** What the settings mean, in plain words. */
  inWords?(controls: C, scene: Pick<EffectScene, 'width' | 'height' | 'marks'>): string
  /** A few words about the current pattern and shape, for the list of steps. */
  summary(controls: C): { readonly pattern: string; readonly shape: string }
  /** The raw field, before it is shaped. */
  pattern(controls: C, scene: EffectScene): GraphNode
  /** The field that is tinted and mixed. */
  shape(controls: C, scene: EffectScene): GraphNode
  /** Whether it takes its field out of what is beneath, as air, instead of laying it over. */
  clears?(controls: C): boolean
  /** Whether it changes what is beneath instead of adding light: small pictures show the difference on mid-grey. */
  readonly corrects?: boolean
  /** What is done to the picture after it was mixed in. `amount` 0-1 and `mask` are those of the effect. */
  finish?(
    controls: C,
    scene: EffectScene,
    mixed: GraphNode,
    held: { readonly amount: number; readonly mask: GraphNode | undefined },
  ): GraphNode
  /** Colours of its own as tones; undefined if the tint is its only one. */
  paint?(controls: C, scene: EffectScene, tint: Rgb): GraphNode | undefined
}
