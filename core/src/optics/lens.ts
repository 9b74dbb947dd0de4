/** A camera as a pinhole or a thin lens. Focal lengths are for a frame 36 mm wide. */

/** Width of the frame that focal lengths are given for, mm. */
export const FRAME_WIDTH = 36

/** Focal length in px of a photo. */
export function focalPixels(focalLength: number, photoWidth: number): number {
  return (focalLength / FRAME_WIDTH) * photoWidth
}

/** Length in px, on a photo, of what moves across the view at a speed (m/s) while the shutter is open, at a distance (m): v t f / z. */
export function streakPixels(speed: number, shutterSeconds: number, focalLength: number, distance: number, photoWidth: number): number {
  return (speed * shutterSeconds * focalPixels(focalLength, photoWidth)) / distance
}

/** Size in px of a thing of a width (m) at a distance (m). */
export function imagePixels(width: number, focalLength: number, distance: number, photoWidth: number): number {
  return (width * focalPixels(focalLength, photoWidth)) / distance
}

/**
 * Diameter in mm, on the sensor, of the disc that a point out of focus becomes: f² |z - s| / (N z (s - f)), thin lens. Distances in metres; a lens
 * focused nearer than its focal length focuses nowhere.
 */
export function blurDisc(focalLength: number, aperture: number, focus: number, distance: number): number {
  const [f, s, z] = [focalLength / 1000, Math.max(focus, (focalLength / 1000) * 1.01), Math.max(distance, 1e-3)]
  return ((f * f * Math.abs(z - s)) / (aperture * z * (s - f))) * 1000
}

/** The same in px of a photo. */
export function blurDiscPixels(focalLength: number, aperture: number, focus: number, distance: number, photoWidth: number): number {
  return (blurDisc(focalLength, aperture, focus, distance) / FRAME_WIDTH) * photoWidth
}

/** Longest exposure in seconds that leaves stars as points: 500 / focal length (common practice, no source). */
export function pinpointSeconds(focalLength: number): number {
  return 500 / focalLength
}
