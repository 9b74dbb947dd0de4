import type { PatternBox } from '../model/patternBox'
import type { GraphNode } from '../graph/node'
import type { Frame } from '../model/frame'
import type { SceneMarks } from '../model/marks'
import type { Size } from '../planes/grid'

/** All that a mask may read. Nodes are made only when they are asked for. */
export interface MaskContext {
  readonly photo: Size
  /** What is shown of the photo. */
  readonly frame: Frame
  readonly photoId: string
  /** The photo as it came. */
  readonly picture: GraphNode
  /** Everything beneath the effect or group that the mask belongs to. */
  readonly beneath: GraphNode
  /** The effect itself, tinted, on black. */
  readonly own: GraphNode
  readonly marks: SceneMarks
  /** Tones of a pinned state; undefined if it is gone. */
  pinned(id: string | null): GraphNode | undefined
  /** A shared mask of the scene; undefined if it is gone, or has nothing in it. */
  shared(id: string | null): GraphNode | undefined
  /** Pattern of another effect; undefined if it is gone. */
  pattern(effectId: string | null): GraphNode | undefined
  /** Distances of the scene in metres, if it says anything about them. */
  readonly distance: GraphNode | undefined
}

interface KindOfMask {
  readonly kind: string
}

/** All that one kind of mask is. Joining, growing, edges, feather and the interface around it are generic. */
export interface MaskDefinition<M extends KindOfMask = KindOfMask> {
  readonly kind: M['kind']
  /** The word for it on the screen. */
  readonly label: string
  /** Whether one that comes after others keeps what they left, instead of taking something out of it. */
  readonly keeps?: boolean
  /** A pattern that is moved, pulled and turned on the photo by a box. */
  readonly box?: PatternBox<M>
  /** A sentence for choosing it. */
  readonly hint: string
  /** Own values of the kind, beside those of `maskBase`, for a photo of 6 megapixels or measured by the photo. */
  start(photo: Size, marks: SceneMarks): Omit<M, BaseKeys>
  /** The mask in a word or two. */
  summary(mask: M): string
  /** The mask before it is inverted, grown and feathered; undefined if what it reads is not there, and then the mask is left out. */
  node(mask: M, context: MaskContext): GraphNode | undefined
  /** What is wrong with it, for the person. */
  problem?(mask: M, context: MaskContext): string | undefined
}

type BaseKeys = 'id' | 'name' | 'on' | 'join' | 'invert' | 'strength' | 'grow' | 'edges' | 'feather'
