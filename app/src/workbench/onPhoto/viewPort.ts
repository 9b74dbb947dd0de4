import { middleOf, type Rect, type Size } from '@welkinar/core'
import type { ViewPlace } from '../../scene/viewState'

// A frame is the part of the photo that is shown, photo px.

/** What part of the photo lies where on the screen. Sizes in css px. */
export interface ViewPort extends Size {
  readonly pixelRatio: number
  /** Css px per photo px. */
  readonly zoom: number
  readonly centreX: number
  readonly centreY: number
}

const LARGEST_ZOOM = 16
const MARGIN = 8

/** Zoom at which all of a frame is seen. */
function fitZoom(frame: Size, screen: Size): number {
  const width = Math.max(40, screen.width - 2 * MARGIN)
  const height = Math.max(40, screen.height - 2 * MARGIN)
  return Math.min(width / frame.width, height / frame.height)
}

export function viewPortFor(place: ViewPlace, frame: Rect, screen: Size, pixelRatio: number): ViewPort {
  if (place.zoom === 'fit') {
    const { x: centreX, y: centreY } = middleOf(frame)
    return { ...screen, pixelRatio, zoom: fitZoom(frame, screen), centreX, centreY }
  }
  return { ...screen, pixelRatio, zoom: place.zoom, centreX: place.centreX, centreY: place.centreY }
}

/** The part of a frame that is seen, photo px. */
export function visibleRegion(port: ViewPort, frame: Rect): Rect {
  const halfWidth = port.width / 2 / port.zoom
  const halfHeight = port.height / 2 / port.zoom
  const x = Math.max(frame.x, port.centreX - halfWidth)
  const y = Math.max(frame.y, port.centreY - halfHeight)
  return {
    x,
    y,
    width: Math.max(0, Math.min(frame.x + frame.width, port.centreX + halfWidth) - x),
    height: Math.max(0, Math.min(frame.y + frame.height, port.centreY + halfHeight) - y),
  }
}

/** Css px of a place on the photo. */
export function toScreen(port: ViewPort, x: number, y: number): { x: number; y: number } {
  return { x: (x - port.centreX) * port.zoom + port.width / 2, y: (y - port.centreY) * port.zoom + port.height / 2 }
}

/** The place after zooming by `factor` so that the point under (x, y), css px, stays where it is. */
export function zoomAbout(port: ViewPort, frame: Rect, factor: number, x: number, y: number): ViewPlace {
  const least = Math.min(0.02, fitZoom(frame, port))
  const zoom = Math.min(LARGEST_ZOOM, Math.max(least, port.zoom * factor))
  const offsetX = x - port.width / 2
  const offsetY = y - port.height / 2
  return kept(frame, {
    zoom,
    centreX: port.centreX + offsetX / port.zoom - offsetX / zoom,
    centreY: port.centreY + offsetY / port.zoom - offsetY / zoom,
  })
}

/** The place after moving the photo by css px. */
export function panBy(port: ViewPort, frame: Rect, x: number, y: number): ViewPlace {
  return kept(frame, { zoom: port.zoom, centreX: port.centreX - x / port.zoom, centreY: port.centreY - y / port.zoom })
}

interface Place {
  readonly x: number
  readonly y: number
}

/** The place after one of two fingers has moved, css px of the view: what lay between them lies between them again, as much larger as they are farther apart. */
export function pinchBy(port: ViewPort, frame: Rect, before: Place, after: Place, other: Place): ViewPlace {
  const apart = (a: Place, b: Place): number => Math.max(1, Math.hypot(a.x - b.x, a.y - b.y))
  const zoomed = zoomAbout(port, frame, apart(after, other) / apart(before, other), (before.x + other.x) / 2, (before.y + other.y) / 2)
  const zoom = zoomed.zoom === 'fit' ? port.zoom : zoomed.zoom
  return kept(frame, {
    zoom,
    centreX: zoomed.centreX - (after.x - before.x) / 2 / zoom,
    centreY: zoomed.centreY - (after.y - before.y) / 2 / zoom,
  })
}

/** The centre stays in the frame, so that the photo cannot be lost. */
function kept(frame: Rect, place: ViewPlace): ViewPlace {
  return {
    ...place,
    centreX: Math.min(frame.x + frame.width, Math.max(frame.x, place.centreX)),
    centreY: Math.min(frame.y + frame.height, Math.max(frame.y, place.centreY)),
  }
}

/** The same view of the photo, larger by a margin on every side, css px. */
export function widened(port: ViewPort, margin: number): ViewPort {
  return { ...port, width: port.width + 2 * margin, height: port.height + 2 * margin }
}
