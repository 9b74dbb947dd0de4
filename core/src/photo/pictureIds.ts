import type { ColourSpace } from '../colour/colourSpace'

// The id of a picture is the SHA-256 of its file, and how that is read.

const IN_COLOUR = '.colour'
const WIDE = '.wide'
const CUT_OUT = '.cutout'
const COVER = '.cover'
const REDUCED = '.reduced'

/**
 * Id of a photo or picture that is converted from the profile that it carries. Another than that of the file: photos of earlier scenes are shown as they were, with their
 * codes taken as they are, and so are the pictures that masks read.
 */
export function inColourId(fileId: string): string {
  return `${fileId}${IN_COLOUR}`
}

function isInColour(id: string): boolean {
  return id.includes(IN_COLOUR)
}

/** Id of a photo with colours that sRGB does not have, converted to Display-P3 instead. */
export function wideId(id: string): string {
  return `${id}${WIDE}`
}

/** The space that a picture is converted to when it is opened; nothing where its codes are taken as they are. */
export function spaceOfId(id: string): ColourSpace | undefined {
  return isInColour(id) ? workingSpaceOf(id) : undefined
}

/** The space that a scene with this photo is worked on in. */
export function workingSpaceOf(photoId: string): ColourSpace {
  return photoId.includes(WIDE) ? 'displayP3' : 'srgb'
}

/** Id of a picture whose transparent parts stay so; of others they are laid on white. */
export function cutOutId(id: string): string {
  return `${id}${CUT_OUT}`
}

export function isCutOut(id: string): boolean {
  return id.includes(CUT_OUT)
}

/** Id of the grey picture that says how much of a cut-out picture is there. */
export function coverId(id: string): string {
  return `${id}${COVER}`
}

/** Id of a picture over the size limit that is opened at a size below it. Earlier builds noted that in its record only. */
export function reducedId(id: string): string {
  return `${id}${REDUCED}`
}

/** The SHA-256 of its file. */
export function fileIdOf(id: string): string {
  return id.split('.', 1)[0] ?? id
}
