import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'
import { compareColours } from '../../test-support/colourDifference'
import { loadKernels } from '../../test-support/kernels'
import { recipePictures } from '../../test-support/recipeSheet'
import { everything } from '../../test-support/sampled'

const names = ['headland', 'pine-inlet', 'ferry-quay', 'survey-hut', 'moored-skiff', 'ship-lantern']
/** In the soak on all of them; a pair that differs on one is two recipes. */
const files = names.slice(0, everything ? 6 : 2).map((name) => fileURLToPath(new URL(`../../../demo/photos/${name}.jpg`, import.meta.url)))

interface Shown {
  readonly width: number
  readonly height: number
  readonly pixels: Uint8ClampedArray
}

/** Red, green, blue of each pixel, 0 to 1. */
function colours({ width, height, pixels }: Shown): number[][] {
  return Array.from({ length: width * height }, (_, i) => [0, 1, 2].map((c) => pixels[4 * i + c]! / 255))
}

describe('the pictures of built-in recipes', () => {
  // CIEDE2000, CIE 142-2001; that 3 is seen at a glance is common practice, no source.
  it('no two are alike on all photos: somewhere their mean colours differ by 3', async () => {
    const pictures = new Map<string, Shown[]>()
    for await (const shown of recipePictures(await loadKernels(), files, everything ? 72 : 36)) {
      const { recipe, width, height } = shown
      const pixels = Uint8ClampedArray.from(shown.pixels)
      pictures.set(recipe, [...(pictures.get(recipe) ?? []), { width, height, pixels }])
    }
    const all = [...pictures]
    const alike = all.flatMap(([one, ofOne], i) =>
      all.slice(i + 1).flatMap(([other, ofOther]) => {
        const most = Math.max(...files.map((_, at) => compareColours(colours(ofOne[at]!), ofOther[at]!).mean))
        return most < 3 ? [`${one} and ${other}: ${most.toFixed(1)}`] : []
      }),
    )
    expect(alike).toEqual([])
  })
})
