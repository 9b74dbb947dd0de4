import type { GraphNode } from '../../graph/node'
import { airlightNode } from '../../operations/distance/airlight/airlight'
import { discsNode, type DiscParameters } from '../../operations/sources/discs/discs'
import { scaleFieldNode } from '../../operations/fields/joinFields/joinFields'
import { streaksNode, type StreakLayer } from '../../operations/sources/streaks/streaks'
import { sumFieldsNode } from '../../operations/fields/sumFields/sumFields'
import { blurDiscPixels, imagePixels, streakPixels } from '../../optics/lens'
import type { Size } from '../../planes/grid'
import { FLAKE_SPEED, FLAKE_WIDTH, flakeDensity, flakesPerCubicMetre, flakeSlope } from '../../weather/snowFlakes'
import { slicesOfAir, type Slice } from '../camera'
import { steady } from '../../graph/steady'
import type { EffectScene } from '../effectDefinition'
import { fallLoop } from '../fallLoop'
import { layerSeed } from '../layerSeed'
import type { SnowControls } from './definition'

const SLICES = 6
/** Melted diameters between which the classes of flakes lie, mm. */
const CLASSES = [0.4, 1, 2, 6] as const
const FAINTEST = 0.03
const MOST_FLAKES = 4000

/** One class of flakes in one slice of the air, as it is drawn. Lengths in photo px. */
interface DrawnFlakes {
  readonly slice: Slice
  readonly count: number
  readonly length: number
  /** Of the flake itself, and of the disc that it becomes out of focus. */
  readonly width: number
  readonly blur: number
  readonly brightness: number
}

/** Which flakes of a snowfall a camera sees singly. */
export function visibleFlakes({ pattern }: SnowControls, photo: Size): DrawnFlakes[] {
  if (pattern.snowfall <= 0) return []
  const { focalLength, aperture, focusDistance, shutter, snowfall } = pattern
  return slicesOfAir(pattern, photo, SLICES).flatMap((slice) =>
    CLASSES.slice(0, -1).flatMap((low, index): DrawnFlakes[] => {
      const high = CLASSES[index + 1] ?? low
      const diameter = low + Math.min(1 / flakeSlope(snowfall), (high - low) / 2)
      const length = streakPixels(FLAKE_SPEED, shutter, focalLength, slice.middle, photo.width)
      const width = imagePixels((FLAKE_WIDTH * diameter) / 1000, focalLength, slice.middle, photo.width)
      const blur = blurDiscPixels(focalLength, aperture, focusDistance, slice.middle, photo.width)
      // Its light is spread over the disc, and along the way.
      const seen = Math.max(1.4, Math.sqrt(width * width + blur * blur))
      const brightness = Math.min(1, (width / seen) ** 2 * ((width + seen) / (seen + length)))
      const density = flakesPerCubicMetre(snowfall, low) - flakesPerCubicMetre(snowfall, high)
      const count = density * slice.volume * (1 + length / photo.height)
      if (brightness < FAINTEST || count < 0.05) return []
      return [
        {
          slice,
          count: steady(Math.min(count, MOST_FLAKES)),
          length: steady(length),
          width: steady(width),
          blur: steady(blur),
          brightness: steady(brightness),
        },
      ]
    }),
  )
}

/** The flakes that are seen singly. */
export function cameraFlakes(controls: SnowControls, scene: EffectScene, moving: boolean): GraphNode {
  const layers = visibleFlakes(controls, scene).map((flakes, index) => ({ ...flakes, index, length: moving ? flakes.length : 0 }))
  const discs = layers.filter(isBlurred).map((flakes) => discsNode(discLayer(controls, scene, flakes), scene.knownDistance))
  const specks = layers.filter((flakes) => !isBlurred(flakes)).map((flakes) => speckLayer(controls, scene, flakes))
  return sumFieldsNode([...(specks.length > 0 ? [streaksNode(specks, scene.knownDistance)] : []), ...discs])
}

/** How bright a veil without end is against a flake (common practice, no source). */
const VEIL = 0.3

/** The veil of the flakes that are too far to be seen singly. */
export function snowVeil({ pattern }: SnowControls, scene: EffectScene): GraphNode {
  const extinction = steady(snowExtinction(pattern.snowfall))
  return scaleFieldNode(airlightNode(scene.distance, { extinction, start: Math.min(pattern.nearest, pattern.farthest) }), VEIL)
}

/** Part of the view that flakes cover over a metre, 1/m. */
function snowExtinction(snowfall: number): number {
  const density = flakeDensity(snowfall)
  let sum = 0
  for (let d = 0.1; d < 6; d += 0.05) sum += density(d) * (FLAKE_WIDTH * d) ** 2 * 0.05
  return (Math.PI / 4) * sum * 1e-6
}

interface Layer extends DrawnFlakes {
  readonly index: number
}

/** Whether flakes are so far out of focus that they are discs. */
function isBlurred({ blur, width }: DrawnFlakes): boolean {
  return blur > 1.5 * width
}

function fallOf({ pattern, shape }: SnowControls, scene: EffectScene, { slice, count, brightness, index }: Layer) {
  const spacing = steady(Math.sqrt((scene.width * scene.height) / count))
  const angle = 90 - shape.wind
  const { near, far, middle } = slice
  return {
    seed: layerSeed(pattern.seed, 32, index),
    spacing,
    angle,
    brightness,
    brightnessVariation: 0.35,
    shiftX: 0,
    shiftY: 0,
    loop: fallLoop(spacing, angle, scene, middle < 3 ? 3 : middle < 10 ? 2 : 1),
    near,
    far,
  }
}

function discLayer(controls: SnowControls, scene: EffectScene, flakes: Layer): DiscParameters {
  const { blur, width, length } = flakes
  return {
    ...fallOf(controls, scene, flakes),
    radius: Math.max(1, 0.5 * (blur + 0.5 * width)),
    radiusVariation: 0.3 * (controls.pattern.sizeVariation / 100),
    softness: Math.min(1, 0.25 + width / Math.max(blur, 1e-3)),
    rim: 0.12,
    length,
  }
}

function speckLayer(controls: SnowControls, scene: EffectScene, flakes: Layer): StreakLayer {
  const { pattern, shape } = controls
  const seen = Math.sqrt(flakes.width * flakes.width + flakes.blur * flakes.blur)
  return {
    ...fallOf(controls, scene, flakes),
    sigma: steady(Math.max(0.35, seen / 4)),
    blur: 0,
    length: Math.max(flakes.length, 0.25 * seen),
    lengthVariation: 0.4 * (pattern.sizeVariation / 100),
    taper: 0.1,
    bend: 0.24 * shape.drift,
    gustScale: Math.max(60, seen * 20),
    turn: 0,
    centreX: scene.width / 2,
    centreY: scene.height / 2,
  }
}
