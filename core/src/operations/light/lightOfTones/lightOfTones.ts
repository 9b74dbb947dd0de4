import type { Rgb } from '../../../colour/hex'
import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { inputAt, plane } from '../../plane'

/** How bright a picture is, as a field: its brightest channel; with `linear` in linear light, for what is mixed there. */
export const lightField: Operation<{ readonly linear: boolean }> = {
  name: 'lightField',
  run(context, { linear }, inputs, rect) {
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = context.plane(count)
    context.kernels.lightOfTones(plane(tones, 0), plane(tones, 1), plane(tones, 2), count, out, 0, 0, 0)
    if (linear) context.kernels.decodePlane(out, out, count)
    return { kind: 'field', rect, planes: [out] }
  },
}

/** The colours of a picture at full brightness, times a tint: light on nothing is its field in these. */
export const lightColours: Operation<{ readonly tint: Rgb }> = {
  name: 'lightColours',
  run(context, { tint }, inputs, rect) {
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    context.kernels.lightOfTones(plane(tones, 0), plane(tones, 1), plane(tones, 2), count, 0, ...out)
    out.forEach((channel, index) => {
      if (tint[index] !== 1) context.kernels.scalePlane(channel, count, tint[index] ?? 1, channel)
    })
    return { kind: 'tones', rect, planes: out }
  },
}

/** The colours of a cut-out picture: what it gives off, divided in linear light by how much of it is there. */
export const uncovered: Operation = {
  name: 'uncovered',
  run(context, _params, inputs, rect) {
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    context.kernels.uncover(plane(tones, 0), plane(tones, 1), plane(tones, 2), plane(inputAt(inputs, 1), 0), count, ...out)
    return { kind: 'tones', rect, planes: out }
  },
}

/** @param light what is given off, on black @param cover how much is there, as grey of as much linear light */
export function uncoveredNode(light: GraphNode, cover: GraphNode): GraphNode {
  return graphNode('uncovered', {}, [light, cover])
}

export function lightFieldNode(tones: GraphNode, linear = false): GraphNode {
  return graphNode('lightField', { linear }, [tones])
}

/** @param tint sRGB-encoded factors */
export function lightColoursNode(tones: GraphNode, tint: Rgb = [1, 1, 1]): GraphNode {
  return graphNode('lightColours', { tint }, [tones])
}
