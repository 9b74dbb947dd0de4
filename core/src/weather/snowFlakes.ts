/** Snow as falling flakes. Diameters are those of the melted drop, mm; snowfall is water, mm/h. */

/** Fall speed of a flake, m/s (common practice, no source). */
export const FLAKE_SPEED = 1

/** Slope Λ of the distribution of melted diameters, 1/mm. Gunn and Marshall 1958 (from memory). */
export function flakeSlope(snowfall: number): number {
  return 2.55 * Math.pow(snowfall, -0.48)
}

/** Number density of flakes, m^-3 mm^-1: N₀ e^(-Λ D), N₀ = 3800 R^-0.87. Gunn and Marshall 1958 (from memory). */
export function flakeDensity(snowfall: number): (diameter: number) => number {
  if (snowfall <= 0) return () => 0
  const slope = flakeSlope(snowfall)
  const intercept = 3800 * Math.pow(snowfall, -0.87)
  return (diameter) => intercept * Math.exp(-slope * diameter)
}

/** Flakes of at least a melted diameter in a cubic metre: the integral of `flakeDensity`. */
export function flakesPerCubicMetre(snowfall: number, smallest: number): number {
  if (snowfall <= 0) return 0
  return flakeDensity(snowfall)(smallest) / flakeSlope(snowfall)
}

/** Across, a dry flake measures about four times the drop it melts to (common practice, no source). */
export const FLAKE_WIDTH = 4

/** The word of weather services for a snowfall (common practice, no source). */
export function snowInWords(snowfall: number): string {
  if (snowfall <= 0) return 'no snow'
  if (snowfall < 0.5) return 'light snow'
  if (snowfall < 2) return 'moderate snow'
  return 'heavy snow'
}
