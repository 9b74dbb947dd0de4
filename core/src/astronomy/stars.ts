/** The night sky in numbers. */

/** How many times brighter a star is than one of `other` magnitude: 100 for five magnitudes (Pogson 1856). */
export function fluxRatio(magnitude: number, other: number): number {
  return Math.pow(100, (other - magnitude) / 5)
}

const SQUARE_DEGREES = 41252.96
/** Some 5000 stars of the whole sky are brighter than this; Yale Bright Star Catalogue (from memory). */
const NAKED_EYE = 6
const NAKED_EYE_STARS = 5000
/** Each magnitude holds about three times as many stars as the one before; Yale Bright Star Catalogue (from memory). */
export const COUNT_GROWTH = 3.1

/** Stars of the whole sky that are brighter than a magnitude. */
export function starsBrighterThan(magnitude: number): number {
  return NAKED_EYE_STARS * Math.pow(COUNT_GROWTH, magnitude - NAKED_EYE)
}

/** The same on a square degree. */
export function starsPerSquareDegree(magnitude: number): number {
  return starsBrighterThan(magnitude) / SQUARE_DEGREES
}

/** Temperature in kelvin of a star of a colour index B - V. Ballesteros 2012 (from memory). */
export function starTemperature(colourIndex: number): number {
  return 4600 * (1 / (0.92 * colourIndex + 1.7) + 1 / (0.92 * colourIndex + 0.62))
}

/** Degrees that the sky turns in an hour. */
const SKY_TURN = 15.041

/** Degrees that the sky turns in an exposure. */
export function trailDegrees(minutes: number): number {
  return (SKY_TURN * minutes) / 60
}
