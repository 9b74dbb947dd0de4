/** From this quality on colour is kept at full resolution in a JPEG, so that coloured points of light keep their colour. */
export const FULL_COLOUR_FROM = 90
