import type { GraphNode, Rgb } from '@welkinar/core'
import { create } from 'zustand'

/** @param hex the same colour, rounded */
export type TakeColour = (hex: string, colour: Rgb) => void

// What each colour that can be taken from the photo is for and read from, as the last screen showed it: the dropper asks when the place is pressed, not before.

const takers = new Map<string, TakeColour>()

/** The tones that each colour is read from; where there are none, the person chooses. */
const useTones = create<Readonly<Record<string, GraphNode | undefined>>>(() => ({}))

export function setColourTaker(what: string, take: TakeColour, tones: GraphNode | undefined): void {
  takers.set(what, take)
  if (useTones.getState()[what]?.key !== tones?.key) useTones.setState({ [what]: tones })
}

export function giveColour(what: string, hex: string, colour: Rgb): void {
  takers.get(what)?.(hex, colour)
}

/** The tones that a colour is read from, if that is settled. */
export function useTonesOf(what: string): GraphNode | undefined {
  return useTones((tones) => tones[what])
}
