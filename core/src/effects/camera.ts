import { choiceControl, numberControl } from '../model/controls'
import { steady } from '../graph/steady'
import { FRAME_WIDTH } from '../optics/lens'
import type { Size } from '../planes/grid'

/** Controls of what falls through the view of a camera. Metres, seconds, millimetres for a frame 36 mm wide. */
export const cameraControls = {
  by: choiceControl('Set by', { eye: 'Eye', camera: 'Weather and camera' }).default('eye'),
  shutter: numberControl({
    label: 'Shutter speed',
    unit: 's',
    usual: [0.001, 0.25],
    hard: [0.0001, 60],
    step: 0.001,
    written: 'fraction',
  }).default(1 / 60),
  focalLength: numberControl({
    label: 'Focal length',
    unit: 'mm',
    usual: [14, 135],
    hard: [4, 1200],
    step: 1,
    hint: 'For a frame 36 mm wide.',
  }).default(28),
  aperture: numberControl({ label: 'Aperture', unit: '', usual: [1.4, 16], hard: [0.7, 64], step: 0.1, written: 'aperture' }).default(5.6),
  focusDistance: numberControl({ label: 'Focus distance', unit: 'm', usual: [0.5, 60], hard: [0.05, 100000], step: 0.1 }).default(12),
  nearest: numberControl({
    label: 'Nearest',
    unit: 'm',
    usual: [0.2, 10],
    hard: [0.05, 1000],
    step: 0.1,
    hint: 'What falls begins here; things that stand nearer hide it.',
  }).default(1.5),
  farthest: numberControl({ label: 'Farthest', unit: 'm', usual: [5, 120], hard: [0.1, 5000], step: 1 }).default(60),
}

/** What those controls start with. */
export const cameraStart = {
  by: 'eye',
  shutter: 1 / 60,
  focalLength: 28,
  aperture: 5.6,
  focusDistance: 12,
  nearest: 1.5,
  farthest: 60,
} as const

const CAMERA_ONLY = ['shutter', 'focalLength', 'aperture', 'focusDistance'].map((key) => `pattern.${key}`)

/** Whether a control counts: those of the camera only with the camera, those in `byEye` only without it. */
export function appliesToCamera(path: string, by: 'eye' | 'camera', byEye: readonly string[], byWeather: string): boolean {
  return by === 'camera' ? !byEye.includes(path) : path !== byWeather && !CAMERA_ONLY.includes(path)
}

export interface Slice {
  /** Distances, metres; `middle` is the mean of their logarithms. */
  readonly near: number
  readonly middle: number
  readonly far: number
  /** Cubic metres of it that the camera sees. */
  readonly volume: number
}

interface View {
  readonly focalLength: number
  readonly nearest: number
  readonly farthest: number
}

/** The air in front of a camera in slices from far to near, each as deep as the others as a ratio. */
export function slicesOfAir({ focalLength, nearest, farthest }: View, photo: Size, count: number): Slice[] {
  const from = Math.max(0.05, Math.min(nearest, farthest))
  const ratio = Math.pow(Math.max(1.01, Math.max(nearest, farthest) / from), 1 / count)
  const across = (FRAME_WIDTH / focalLength) ** 2 * (photo.height / photo.width)
  return Array.from({ length: count }, (_, index) => {
    const near = steady(from * Math.pow(ratio, count - 1 - index))
    const far = steady(near * ratio)
    return { near, far, middle: steady(Math.sqrt(near * far)), volume: (across * (far ** 3 - near ** 3)) / 3 }
  })
}

/** A shutter time as it stands on a camera. */
export function shutterInWords(seconds: number): string {
  return seconds >= 0.3 ? `${Number(seconds.toPrecision(2))} s` : `1/${Math.round(1 / seconds)} s`
}
