import { graphNode, type GraphNode } from '../../graph/node'
import type { Operation } from '../../graph/operation'
import { gaussianBlurNode } from '../gaussianBlur/gaussianBlur'
import { toneChannels } from '../luminosityMask/luminosityMask'
import { inputAt, plane } from '../plane'

/** Linear luminance of tones as a field. */
export const luminanceField: Operation = {
  name: 'luminanceField',
  run(context, _params, inputs, rect) {
    const tones = inputAt(inputs, 0)
    const count = rect.width * rect.height
    const out = context.plane(count)
    const channel = toneChannels.indexOf('linearLuminance')
    context.kernels.tonePlane(channel, plane(tones, 0), plane(tones, 1), plane(tones, 2), count, out)
    return { kind: 'field', rect, planes: [out] }
  },
}

type Glow = {
  readonly x: number
  readonly y: number
  /** Standard deviation, photo px. */ readonly sigma: number
  readonly strength: number
}
type GlowParameters = { readonly glows: readonly Glow[] }

/** A field with the glow of lights added. */
export const addGlows: Operation<GlowParameters> = {
  name: 'addGlows',
  run(context, { glows }, inputs, rect) {
    const { kernels, grid } = context
    const count = rect.width * rect.height
    const out = context.plane(count)
    kernels.scalePlane(plane(inputAt(inputs, 0), 0), count, 1, out)
    for (const { x, y, sigma, strength } of glows) {
      kernels.addGlow(out, rect.x, rect.y, rect.width, rect.height, grid.pitchX, grid.pitchY, x, y, Math.max(1, sigma), strength)
    }
    return { kind: 'field', rect, planes: [out] }
  },
}

/** The light in the air of a scene: a wide blur of the photo in linear light, and what its lights add. */
export function airLightNode(photo: GraphNode, sigma: number, glows: readonly Glow[]): GraphNode {
  const blurred = gaussianBlurNode(graphNode('luminanceField', {}, [photo]), sigma)
  return glows.length > 0 ? graphNode('addGlows', { glows }, [blurred]) : blurred
}

type LitParameters = {
  /** 0-1: how much the light decides. */
  readonly lit: number
}

/** A field (input 0) brightened where there is light in the air (input 1), and dimmed where there is none. */
export const litField: Operation<LitParameters> = {
  name: 'litField',
  run(context, { lit }, inputs, rect) {
    const count = rect.width * rect.height
    const light = plane(inputAt(inputs, 1), 0)
    const planes = inputAt(inputs, 0).planes.map((source, index) => {
      const out = context.plane(count)
      context.kernels.litPlane(source, light, count, lit, index === 1, out)
      return out
    })
    return { kind: 'field', rect, planes }
  },
}

export function litFieldNode(field: GraphNode, light: GraphNode, lit: number): GraphNode {
  return lit > 0 ? graphNode('litField', { lit }, [field, light]) : field
}
