// A finish by the nearest steps that sharp has: saturation and contrast, local contrast, a matrix for the balance, gamma for the curve, a vignette multiplied in, grain in soft light,
// and, for want of colour tables, another matrix. JPEG out.
// Arguments: photo, output, threads.
import sharp from 'sharp'

const [photo = '', out = '', threads = '2'] = process.argv.slice(2)
sharp.concurrency(Number(threads))

const { width = 0, height = 0 } = await sharp(photo).metadata()
const vignette = `<svg width="${width}" height="${height}"><defs><radialGradient id="g" cx="50%" cy="50%" r="70%"><stop offset="40%" stop-color="#fff"/>
<stop offset="100%" stop-color="#888"/></radialGradient></defs><rect width="100%" height="100%" fill="url(#g)"/></svg>`
const grain = await sharp({
  create: { width, height, channels: 3, background: '#808080', noise: { type: 'gaussian', mean: 128, sigma: 10 } },
})
  .blur(0.6)
  .raw()
  .toBuffer()
const balance = [
  [1.02, 0, 0],
  [0, 1, 0],
  [0, 0.02, 0.97],
] as const
const table = [
  [0.95, 0.04, 0.01],
  [0.02, 0.94, 0.04],
  [0.01, 0.05, 0.94],
] as const
const first = await sharp(photo)
  .gamma(1.1)
  .modulate({ saturation: 1.15 })
  .linear(1.08, -10)
  .recomb(balance as never)
  .sharpen({ sigma: 10, m1: 0.3, m2: 0.3 })
  .composite([
    { input: Buffer.from(vignette), blend: 'multiply' },
    { input: grain, raw: { width, height, channels: 3 }, blend: 'soft-light' },
  ])
  .removeAlpha()
  .raw()
  .toBuffer({ resolveWithObject: true })
await sharp(first.data, { raw: { width, height, channels: first.info.channels } })
  .recomb(table as never)
  .jpeg({ quality: 92 })
  .toFile(out)
