import type { GraphNode } from '../../graph/node'
import { airlightNode } from '../../operations/distance/airlight/airlight'
import { scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { streaksNode } from '../../operations/sources/streaks/streaks'
import { blurDiscPixels, imagePixels, streakPixels } from '../../optics/lens'
import { dropsPerCubicMetre, dropSlope, dropSpeed, rainExtinction } from '../../weather/rainDrops'
import { slicesOfAir, type Slice } from '../camera'
import { steady } from '../../graph/steady'
import type { EffectScene } from '../effectDefinition'
import { fallLoop } from '../fallLoop'
import { layerSeed } from '../layerSeed'
import type { RainControls } from './definition'

const SLICES = 5
/** Bounds of the classes of drops, mm. */
const CLASSES = [0.5, 1, 2, 8] as const
/** A drop gathers the light of half the sky, and shows it brighter than what is behind (common practice, no source). */
const GLINT = 14
/** What is fainter than this is veil. */
const FAINTEST = 0.04
const MOST_DROPS = 1500
/** How bright a veil without end is against a drop (common practice, no source). */
const VEIL = 0.2

/** One class of drops in one slice of the air, as it is drawn. Lengths in photo px. */
interface DrawnDrops {
  readonly slice: Slice
  readonly diameter: number
  /** In the frame at any moment or while the shutter is open. */
  readonly count: number
  readonly length: number
  readonly sigma: number
  readonly brightness: number
}

/** Mean diameter of the drops of a class: that of an exponential law between two bounds. */
function meanDiameter(slope: number, low: number, high: number): number {
  const [a, b] = [1, Math.exp(-slope * (high - low))]
  return (low * a - high * b) / (a - b) + 1 / slope
}

/** Which drops of a rain a camera sees singly. */
export function visibleDrops({ pattern }: RainControls, photo: EffectScene): DrawnDrops[] {
  if (pattern.rate <= 0) return []
  const { focalLength, aperture, focusDistance, shutter, rate } = pattern
  return slicesOfAir(pattern, photo, SLICES).flatMap((slice) =>
    CLASSES.slice(0, -1).flatMap((low, index): DrawnDrops[] => {
      const high = CLASSES[index + 1] ?? low
      const diameter = meanDiameter(dropSlope(rate), low, high)
      const speed = dropSpeed(diameter)
      const length = streakPixels(speed, shutter, focalLength, slice.middle, photo.width)
      const width = imagePixels(diameter / 1000, focalLength, slice.middle, photo.width)
      const blur = blurDiscPixels(focalLength, aperture, focusDistance, slice.middle, photo.width)
      const seen = Math.max(1.4, Math.sqrt(width * width + blur * blur))
      // A place is lit only while the drop passes it; out of focus the light spreads further.
      const passing = Math.min(1, (GLINT * diameter) / 1000 / (speed * shutter))
      const brightness = passing * (width / seen) * ((length + width) / (length + seen))
      const density = dropsPerCubicMetre(rate, low) - dropsPerCubicMetre(rate, high)
      const count = density * slice.volume * (1 + length / photo.height)
      if (brightness < FAINTEST || count < 0.05) return []
      const drawn = Math.min(count, MOST_DROPS)
      return [{ slice, diameter, count: steady(drawn), length: steady(length), sigma: steady(seen / 4), brightness: steady(brightness) }]
    }),
  )
}

/** The drops that are seen singly. */
export function cameraDrops(controls: RainControls, scene: EffectScene, moving: boolean): GraphNode {
  const { pattern, shape } = controls
  const layers = visibleDrops(controls, scene).map((drops, index) => {
    const spacing = steady(Math.sqrt((scene.width * scene.height) / drops.count))
    return {
      seed: layerSeed(pattern.seed, 32, index),
      spacing,
      sigma: drops.sigma,
      blur: 0,
      length: moving ? drops.length : 0,
      lengthVariation: 0.2,
      taper: shape.taper / 100,
      angle: shape.angle,
      bend: shape.windVariation * GREATEST_BEND,
      gustScale: Math.max(120, drops.length * 6),
      brightness: drops.brightness,
      brightnessVariation: 0.6,
      shiftX: 0,
      shiftY: 0,
      turn: 0,
      centreX: scene.width / 2,
      centreY: scene.height / 2,
      loop: fallLoop(spacing, shape.angle, scene, drops.slice.middle < 4 ? 3 : drops.slice.middle < 12 ? 2 : 1),
      near: drops.slice.near,
      far: drops.slice.far,
    }
  })
  return streaksNode(layers, scene.knownDistance)
}

/** The veil of the drops that are too far to be seen singly. */
export function rainVeil({ pattern }: RainControls, scene: EffectScene): GraphNode {
  const extinction = steady(rainExtinction(pattern.rate))
  return scaleFieldNode(airlightNode(scene.distance, { extinction, start: Math.min(pattern.nearest, pattern.farthest) }), VEIL)
}

/** Degrees for each percent of wind variation. */
const GREATEST_BEND = 0.15
