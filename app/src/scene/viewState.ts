import { frameOfSource, middleOf, type BrushStroke, type DepthPlace, type PictureSource, type Scene, type StepName } from '@welkinar/core'

/** How the picture is compared with the photo. */
export type Compare = 'after' | 'before' | 'split'
/** A state of the scene to compare with. */
export interface ComparedState {
  readonly name: string
  readonly source: PictureSource
}
/** How the mask of the selected effect is seen. */
export type MaskView = 'off' | 'grey' | 'hatch'
export type Panel = 'steps' | 'marks' | 'photo'
/** Whether the mask that is seen is the chosen one alone or the whole list. */
export type MaskScope = 'one' | 'all'
/** What a tap or a drag on the photo does; without a tool it moves the photo. */
export type PhotoTool =
  | { readonly kind: 'paint' }
  | { readonly kind: 'outline'; readonly hole: boolean; readonly by: 'corners' | 'freehand' }
  | { readonly kind: 'region' }
  | { readonly kind: 'tap similar' }
  | Dropper
  | { readonly kind: 'glints' }
  /** Presses a colour on the photo and pulls it elsewhere. */
  | { readonly kind: 'pull' }
  | { readonly kind: 'path' }
  /** Makes corrections by drags. */
  | { readonly kind: 'correct' }
  | { readonly kind: 'crop' }
  | { readonly kind: 'level' }
  | { readonly kind: 'mend' }
  | { readonly kind: 'watch' }
  | { readonly kind: 'mark'; readonly mark: 'light' | 'horizon' | 'waterline' | 'focal' }

/** Takes a colour from the photo. */
export interface Dropper {
  readonly kind: 'dropper'
  /** What it is the colour of. */
  readonly what: string
}

/** Where the photo lies in the view: `zoom` css px per photo px, or fitted; `centre` in photo px. */
export interface ViewPlace {
  readonly zoom: number | 'fit'
  readonly centreX: number
  readonly centreY: number
}

/** How the scene is looked at. Nothing of it is kept with the scene. */
export interface ViewState {
  /** The selected effect or group. */
  readonly selectedId: string | undefined
  /** Whether the panel at the right is in sight. */
  readonly panelOpen: boolean
  /** Whether the depth line is in sight, or folded to a strip. */
  readonly lineOpen: boolean
  /** The place of the depth line for which looks are offered at the right. */
  readonly adding: DepthPlace | undefined
  /** What the panel at the right shows: the steps of the selected effect, the marks of the scene, or the groundwork of the photo. */
  readonly panel: Panel
  readonly openStep: StepName | undefined
  readonly chosenMaskId: string | undefined
  /** The place, photo px, whose effects are listed. */
  readonly askedAt: { readonly x: number; readonly y: number } | undefined
  /** Which glint of the selected effect is chosen. */
  readonly chosenGlint: number | undefined
  readonly tool: PhotoTool | undefined
  /** Width by height that a crop keeps; free without it. */
  readonly cropShape: number | undefined
  /** Which repair of the photo is chosen. */
  readonly chosenRepair: string | undefined
  readonly place: ViewPlace
  readonly compare: Compare
  /** The state of the scene that Split and Before show; the photo as it came without one. */
  readonly against: ComparedState | undefined
  /** Held down: the photo shows while the key or button is down. */
  readonly holdingBefore: boolean
  /** Held down: the picture shows without the selected effect or group. */
  readonly holdingWithout: boolean
  /** Held down: the picture shows the selected effect without its mask. */
  readonly holdingUnmasked: boolean
  /** Held down: the selected effect shows at three times its strength. */
  readonly exaggerating: boolean
  /** A place of an effect while its handle is dragged; the effect is drawn weakly until it rests. */
  readonly placing: { readonly effectId: string; readonly x: number; readonly y: number } | undefined
  /** Whether the patterns move in the picture. */
  readonly playing: boolean
  /** 0-1 across the photo. */
  readonly splitAt: number
  /** Whether the watch column is in sight. */
  readonly watchOpen: boolean
  /** Whether what is newly clipped is marked. */
  readonly marksClipped: boolean
  /** The picture the other way round, only for looking. */
  readonly mirrored: boolean
  /** The picture and what it is compared with in turn. */
  readonly blinking: boolean
  /** Where on the photo the pointer is, px; nothing where it is elsewhere. */
  readonly pointerAt: { readonly x: number; readonly y: number } | undefined
  readonly maskView: MaskView
  readonly maskScope: MaskScope
  /** Css px per photo px as the view shows it now, also when it is fitted. */
  readonly shownZoom: number
  /** The scene as it would be with a choice that is only being tried; the view shows it, nothing keeps it. */
  readonly trial: Scene | undefined
  /** The stroke under the pen, as far as the trial has it. */
  readonly painted: PaintedStroke | undefined
}

/** A stroke that is being painted: the trial differs from the scene by it alone. */
export interface PaintedStroke {
  /** Its own as long as the pen is down. */
  readonly id: symbol
  readonly stroke: BrushStroke
  /** When the pen was where it ends now, ms of the page's own clock. */
  readonly at: number
}

/** How a scene is looked at when it is opened. */
export const freshView = {
  panelOpen: true,
  lineOpen: true,
  adding: undefined,
  panel: 'steps',
  cropShape: undefined,
  chosenRepair: undefined,
  openStep: undefined,
  chosenMaskId: undefined,
  chosenGlint: undefined,
  askedAt: undefined,
  tool: undefined,
  compare: 'after',
  against: undefined,
  holdingBefore: false,
  holdingWithout: false,
  holdingUnmasked: false,
  exaggerating: false,
  placing: undefined,
  playing: false,
  splitAt: 0.5,
  watchOpen: false,
  marksClipped: false,
  mirrored: false,
  blinking: false,
  pointerAt: undefined,
  maskView: 'off',
  maskScope: 'all',
  trial: undefined,
  painted: undefined,
} satisfies Partial<ViewState>

/** All of what is shown of the photo in view, and its middle for other zooms. */
export function fittedPlace(scene: Scene): ViewPlace {
  const { x: centreX, y: centreY } = middleOf(frameOfSource(scene))
  return { zoom: 'fit', centreX, centreY }
}
