import type { Command } from '../keys/commands'
import { useScene } from './sceneStore'

const ZOOM_STEP = 1.25
const ZOOMS = { least: 0.02, most: 16 }

/** What changes how large the photo is shown, wherever it is. */
export const zoomCommands: readonly Command[] = [
  { id: 'fit', label: 'See the whole photo', run: () => zoomTo('fit') },
  { id: 'one', label: 'See it pixel for pixel (1:1)', run: () => zoomTo(1 / window.devicePixelRatio) },
  { id: 'in', label: 'Zoom in', repeats: true, run: () => zoomBy(ZOOM_STEP) },
  { id: 'out', label: 'Zoom out', repeats: true, run: () => zoomBy(1 / ZOOM_STEP) },
]

function zoomTo(zoom: number | 'fit'): void {
  const { place, set } = useScene.getState()
  set({ place: { ...place, zoom } })
}

function zoomBy(factor: number): void {
  zoomTo(Math.min(ZOOMS.most, Math.max(ZOOMS.least, useScene.getState().shownZoom * factor)))
}
