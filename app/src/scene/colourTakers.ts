import type { Rgb } from '@welkinar/core'

/** @param hex the same colour, rounded */
export type TakeColour = (hex: string, colour: Rgb) => void

/** What each colour that can be taken from the photo is for, as the last screen showed it: the dropper asks for it when the place is pressed, not before. */
const takers = new Map<string, TakeColour>()

export function setColourTaker(what: string, take: TakeColour): void {
  takers.set(what, take)
}

export function giveColour(what: string, hex: string, colour: Rgb): void {
  takers.get(what)?.(hex, colour)
}
