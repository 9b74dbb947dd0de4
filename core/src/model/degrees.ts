export function degreesToRadians(degrees: number): number {
  return (degrees * Math.PI) / 180
}

/** An angle as one from -180 to 180 degrees. */
export function within180(degrees: number): number {
  return ((((degrees + 180) % 360) + 360) % 360) - 180
}
