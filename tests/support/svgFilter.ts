import type { Page } from 'playwright-core'

interface Filtered {
  readonly width: number
  readonly height: number
  /** Interleaved RGBA bytes that the filter is applied to; transparent without them. */
  readonly bytes?: readonly number[]
}

/** What Chromium makes of a picture by the primitives of an SVG filter, sRGB-encoded: interleaved RGBA bytes. */
export async function throughSvgFilter(page: Page, primitives: string, picture: Filtered): Promise<Uint8Array> {
  // As text: a list of numbers is looked at one by one on the way.
  const filtered = await page.evaluate(
    ({ bytes, width, height, inside }) => {
      const region = `filterUnits="userSpaceOnUse" x="0" y="0" width="${width}" height="${height}"`
      const svg = new DOMParser().parseFromString(
        `<svg xmlns="http://www.w3.org/2000/svg"><filter id="f" ${region} color-interpolation-filters="sRGB">${inside}</filter></svg>`,
        'image/svg+xml',
      )
      // One at a time: the name of the filter is the same.
      document.querySelector('svg[data-filter]')?.remove()
      svg.documentElement.setAttribute('data-filter', '')
      document.body.append(svg.documentElement)
      const sheet = (): HTMLCanvasElement => Object.assign(document.createElement('canvas'), { width, height })
      const source = sheet()
      if (bytes)
        source.getContext('2d')!.putImageData(
          new ImageData(
            Uint8ClampedArray.from(atob(bytes), (c) => c.charCodeAt(0)),
            width,
            height,
          ),
          0,
          0,
        )
      const context = sheet().getContext('2d')!
      context.filter = 'url(#f)'
      context.drawImage(source, 0, 0)
      return btoa(Array.from(context.getImageData(0, 0, width, height).data, (code) => String.fromCharCode(code)).join(''))
    },
    {
      bytes: picture.bytes && Buffer.from(picture.bytes).toString('base64'),
      width: picture.width,
      height: picture.height,
      inside: primitives,
    },
  )
  return Buffer.from(filtered, 'base64')
}
