import { linearOf, type Rgb } from '../../colour/hex'
import { graphNode, type GraphNode } from '../../graph/node'
import type { Operation } from '../../graph/operation'
import { gaussianBlurNode } from '../gaussianBlur/gaussianBlur'
import { toneChannels } from '../luminosityMask/luminosityMask'
import { inputAt, plane } from '../plane'

/** A light of the scene as it glows into the air. */
type ColouredGlow = {
  readonly x: number
  readonly y: number
  readonly sigma: number
  readonly strength: number
  readonly colour: Rgb
}
type LitParameters = {
  readonly glows: readonly ColouredGlow[]
  /** 0-1: how much of the light's colour is taken. */
  readonly part: number
}

/** Colours (input 0) as they look in the light around them: the blurred photo (input 1) and the lights of the scene. */
export const litColours: Operation<LitParameters> = {
  name: 'litColours',
  run(context, { glows, part }, inputs, rect) {
    const { kernels, grid, scratch } = context
    const count = rect.width * rect.height
    const light = [0, 1, 2].map((channel) => {
      const own = scratch(count * 4)
      kernels.decodePlane(plane(inputAt(inputs, 1), channel), own, count)
      for (const { x, y, sigma, strength, colour } of glows) {
        const glow = strength * (linearOf(colour)[channel] ?? 0)
        kernels.addGlow(own, rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY, x, y, Math.max(1, sigma), glow)
      }
      return own
    }) as [number, number, number]
    const luminance = luminanceOf(context, light, count)
    const planes = [0, 1, 2].map((channel) => {
      const out = context.plane(count)
      kernels.decodePlane(plane(inputAt(inputs, 0), channel), out, count)
      kernels.tintPlane(out, light[channel] ?? 0, luminance, part, count, out)
      kernels.encodePlane(out, out, count)
      return out
    })
    return { kind: 'tones', rect, planes }
  },
}

type Context = Parameters<typeof litColours.run>[0]

/** Luminance of linear planes. The kernel reads encoded ones, so they are encoded first. */
function luminanceOf({ kernels, scratch }: Context, linear: readonly [number, number, number], count: number): number {
  const encoded = linear.map((channel) => {
    const own = scratch(count * 4)
    kernels.encodePlane(channel, own, count)
    return own
  }) as [number, number, number]
  const out = scratch(count * 4)
  kernels.tonePlane(toneChannels.indexOf('linearLuminance'), ...encoded, count, out)
  return out
}

/** @param photo tones whose blur is the light in the air; `sigma` px of that blur */
export function litColoursNode(colours: GraphNode, photo: GraphNode, sigma: number, params: LitParameters): GraphNode {
  return graphNode('litColours', params, [colours, gaussianBlurNode(photo, sigma)])
}
