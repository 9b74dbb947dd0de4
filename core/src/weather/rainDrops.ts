/** Rain as falling drops: how many of which size, and how fast. Diameters in mm, speeds in m/s, rain rates in mm/h. */

const INTERCEPT = 8000
const SMALLEST = 0.11
const LARGEST = 8
const STEP = 0.02

/** Slope Λ of the distribution of diameters, 1/mm. Marshall and Palmer 1948 (from memory). */
export function dropSlope(rate: number): number {
  return 4.1 * Math.pow(rate, -0.21)
}

/** Fall speed of a drop, m/s; 0 below 0.11 mm, where the fit ends. Atlas, Srivastava and Sekhon 1973, a fit to Gunn and Kinzer 1949 (from memory). */
export function dropSpeed(diameter: number): number {
  return Math.max(0, 9.65 - 10.3 * Math.exp(-0.6 * diameter))
}

/**
 * Rain rate, mm/h, that falls out of a number density of drops, m^-3 mm^-1: (π/6) ∫ N(D) D³ v(D) dD, in these units times 0.0036.
 */
export function rateOf(density: (diameter: number) => number): number {
  let sum = 0
  for (let d = SMALLEST + STEP / 2; d < LARGEST; d += STEP) sum += density(d) * d * d * d * dropSpeed(d) * STEP
  return 0.0036 * (Math.PI / 6) * sum
}

function marshallPalmer(rate: number): (diameter: number) => number {
  const slope = dropSlope(rate)
  return (diameter) => INTERCEPT * Math.exp(-slope * diameter)
}

/**
 * Number density of drops at a rain rate, m^-3 mm^-1: N₀ e^(-Λ D), Marshall and Palmer 1948 (from memory). With the fall speeds above that law
 * gives back up to a fifth more than the rate it is for, so it is scaled to give back the rate itself.
 */
export function dropDensity(rate: number): (diameter: number) => number {
  if (rate <= 0) return () => 0
  const law = marshallPalmer(rate)
  const scale = rate / rateOf(law)
  return (diameter) => scale * law(diameter)
}

/** Drops of at least a diameter in a cubic metre: the integral of `dropDensity`. */
export function dropsPerCubicMetre(rate: number, smallest: number): number {
  if (rate <= 0) return 0
  const scale = rate / rateOf(marshallPalmer(rate))
  return ((scale * INTERCEPT) / dropSlope(rate)) * Math.exp(-dropSlope(rate) * smallest)
}

/** Part of the view that drops cover over a metre of the way, 1/m: twice their cross-sections, as for all things much larger than a wavelength. */
export function rainExtinction(rate: number): number {
  const density = dropDensity(rate)
  let sum = 0
  for (let d = SMALLEST + STEP / 2; d < LARGEST; d += STEP) sum += density(d) * d * d * STEP
  return 2 * (Math.PI / 4) * sum * 1e-6
}

/** The word of weather services for a rain rate (common practice, no source). */
export function rainInWords(rate: number): string {
  if (rate <= 0) return 'no rain'
  if (rate < 0.5) return 'drizzle'
  if (rate < 2.5) return 'light rain'
  if (rate < 10) return 'moderate rain'
  if (rate < 50) return 'heavy rain'
  return 'violent rain'
}
