import type { TracedScene } from './tracer/trace'
import type { Vector } from './tracer/vector'

/** A sample photo: what is in front of the camera, and how it is taken. */
export interface PhotoDefinition {
  readonly name: string
  readonly scene: TracedScene
  readonly camera: {
    readonly place: Vector
    readonly target: Vector
    /** Horizontal field of view, degrees. */
    readonly fieldOfView: number
    /** Radius of the lens opening in metres, and the distance in focus. */
    readonly aperture: number
    readonly focus: number
    /** Degrees that it is turned about its axis. */
    readonly roll?: number
  }
  /** Part of the height that is cut off at the bottom. */
  readonly crop?: number
  readonly develop: {
    readonly exposure: number
    /** Whether its noise is reduced; for scenes of glossy things. */
    readonly calm?: boolean
    /** Part of the light that spreads in the lens. */
    readonly flare: number
    /** Strength of the sensor noise. */
    readonly noise: number
    /** White balance as multipliers in linear light. */
    readonly balance: Vector
  }
}
