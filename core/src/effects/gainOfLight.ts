import { linearOf, mapRgb, type Rgb } from '../colour/hex'
import { steady } from '../graph/steady'

/**
 * Gain of each channel, linear, of exposure in the colour of a light: its colour turns the colours, and leaves how bright they are.
 * @param exposure EV
 * @param warmth 0-1: how much of its colour the light has
 */
export function gainOfLight(tint: Rgb, exposure: number, warmth: number): Rgb {
  const light = linearOf(tint)
  const luminance = 0.2126 * light[0] + 0.7152 * light[1] + 0.0722 * light[2]
  const stops = Math.pow(2, exposure)
  return mapRgb(light, (channel) => steady(stops * (1 + warmth * (channel / Math.max(0.02, luminance) - 1))))
}
