import { graphNode, type GraphNode } from '../../../graph/node'
import type { Operation } from '../../../graph/operation'
import { gaussianBlurNode } from '../../blurs/gaussianBlur/gaussianBlur'
import { inputAt, plane } from '../../plane'

type BrightsParameters = {
  /** Linear luminance from which light spreads, and over how much it sets in. */
  readonly threshold: number
  readonly soft: number
}

/** What is brighter than a threshold, in linear light, as tones that are not encoded. */
export const brights: Operation<BrightsParameters> = {
  name: 'brights',
  run(context, { threshold, soft }, inputs, rect) {
    const count = rect.width * rect.height
    const tones = inputAt(inputs, 0)
    const out = [0, 1, 2].map(() => context.plane(count)) as [number, number, number]
    context.kernels.brightsOf(plane(tones, 0), plane(tones, 1), plane(tones, 2), count, threshold, soft, ...out)
    return { kind: 'tones', rect, planes: out }
  },
}

type SpreadParameters = {
  /** Factor of each input. */
  readonly weights: readonly number[]
}

/** Linear light of several pictures added up, encoded with a soft shoulder. */
export const spreadLight: Operation<SpreadParameters> = {
  name: 'spreadLight',
  keepsSmooth: true,
  run(context, { weights }, inputs, rect) {
    const { kernels } = context
    const count = rect.width * rect.height
    const part = context.scratch(count * 4)
    const planes = [0, 1, 2].map((channel) => {
      const out = context.plane(count)
      kernels.fill(out, count, 0)
      inputs.forEach((input, index) => {
        kernels.scalePlane(plane(input, channel), count, weights[index] ?? 0, part)
        kernels.addPlanes(out, part, count, out)
      })
      kernels.softShoulder(out, count, out)
      kernels.encodePlane(out, out, count)
      return out
    })
    return { kind: 'tones', rect, planes }
  },
}

/**
 * Light that spreads from what is brighter than a threshold, by a sum of Gaussians that are each wider and weaker.
 * @param widths standard deviations in photo px and their shares
 */
export function spreadLightNode(
  tones: GraphNode,
  { threshold, soft, widths }: BrightsParameters & { readonly widths: readonly (readonly [sigma: number, share: number])[] },
): GraphNode {
  const source = graphNode('brights', { threshold, soft }, [tones])
  const blurred = widths.map(([sigma]) => gaussianBlurNode(source, sigma))
  return graphNode('spreadLight', { weights: widths.map(([, share]) => share) }, blurred)
}
