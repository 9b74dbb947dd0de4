import { TOLERANCE, type BrushStroke, type Size } from '@welkinar/core'
import { create } from 'zustand'

/** What the next stroke is painted with. */
export interface BrushSettings extends Omit<BrushStroke, 'points' | 'guides'> {
  /** Whether it stops at edges of the photo. */
  readonly edges: boolean
}

/** What brush and eraser each have of their own. */
type Tip = Pick<BrushSettings, 'size' | 'hardness' | 'flow'>

interface BrushState extends BrushSettings {
  /** Those of the eraser while one paints, and of the brush while one erases. */
  readonly other: Tip
  /** Whether nobody has changed it yet. */
  readonly untouched: boolean
  set(part: Partial<BrushSettings>): void
  /** Makes it as large as the photo wants it, if nobody has changed it yet. */
  fit(photo: Size, colour: boolean): void
}

/** Per cent: colour is built up in many strokes. */
const FLOW_OF_COLOUR = 10

/** The brush for a photo that nobody has painted on: a large and soft one, a tenth of the photo wide. @param colour whether colour is painted, and not a mask of something else */
export function freshBrush({ width, height }: Size, colour = false): BrushSettings {
  const tip = { size: Math.round(Math.max(width, height) / 10), hardness: 0, flow: colour ? FLOW_OF_COLOUR : 100 }
  return { ...tip, level: 100, pressure: 'size', erase: false, edges: false, tolerance: TOLERANCE }
}

export const useBrush = create<BrushState>()((set, get) => ({
  ...freshBrush({ width: 3000, height: 2000 }),
  other: tipOf(freshBrush({ width: 3000, height: 2000 })),
  untouched: true,
  set: (part) => {
    const state = get()
    // Brush and eraser change places, each with its own tip.
    const swapped = part.erase !== undefined && part.erase !== state.erase ? { ...state.other, other: tipOf(state) } : {}
    set({ ...swapped, ...part, untouched: false })
  },
  fit: (photo, colour) => {
    if (get().untouched) set({ ...freshBrush(photo, colour), other: tipOf(freshBrush(photo)) })
  },
}))

function tipOf({ size, hardness, flow }: Tip): Tip {
  return { size, hardness, flow }
}
