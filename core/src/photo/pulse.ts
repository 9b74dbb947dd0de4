/**
 * A sign of life of a thread that is busy. Whoever works in slices gives one after each; before a call that cannot be cut it says how long that may take.
 * @param seconds for so long nothing more is to be expected, on a slow machine
 */
export type Pulse = (seconds?: number) => void

/** Where nobody listens. */
export const noPulse: Pulse = () => undefined

/** What a codec may take that is one call, seconds a megapixel: several times what it takes on a slow core. */
export const SECONDS_PER_MEGAPIXEL = 4
