/** Pixels of a picture that may be computed as a whole where its tiles would repeat each other's work: a view has about one million. */
export const SMALL_PICTURE = 3e6
