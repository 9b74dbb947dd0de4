import type { BrushStroke, Size } from '@welkinar/core'
import { create } from 'zustand'

/** What the next stroke is painted with. */
export type BrushSettings = Omit<BrushStroke, 'points'>

interface BrushState extends BrushSettings {
  set(part: Partial<BrushSettings>): void
}

/** The brush for a photo that nobody has painted on: a soft one, a twentieth of the photo wide. */
export function freshBrush({ width, height }: Size): BrushSettings {
  return { size: Math.round(Math.max(width, height) / 20), hardness: 40, flow: 100, level: 100, pressure: 'size', erase: false }
}

export const useBrush = create<BrushState>()((set) => ({ ...freshBrush({ width: 3000, height: 2000 }), set }))
