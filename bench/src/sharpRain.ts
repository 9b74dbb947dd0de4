// The rain job by the trade's steps with sharp: noise, blur 2 px, pinch, smear 25 px at 80°, a second larger
// copy, Screen, JPEG out. Arguments: photo, output, threads.
import sharp from 'sharp'

const [photo = '', out = '', threads = '2'] = process.argv.slice(2)
sharp.concurrency(Number(threads))

const SMEAR = 25

/** A line of 25 px at 80° as a convolution kernel. */
function smearKernel(): { width: number; height: number; kernel: number[] } {
  const kernel = new Array<number>(SMEAR * SMEAR).fill(0)
  const half = (SMEAR - 1) / 2
  for (let t = -half; t <= half; t += 0.25) {
    const x = Math.round(half + t * Math.cos((80 * Math.PI) / 180))
    const y = Math.round(half - t * Math.sin((80 * Math.PI) / 180))
    kernel[y * SMEAR + x] = 1
  }
  return { width: SMEAR, height: SMEAR, kernel }
}

async function streaks(width: number, height: number): Promise<Buffer> {
  const noise = { type: 'gaussian' as const, mean: 128, sigma: 60 }
  return sharp({ create: { width, height, channels: 3, background: '#000', noise } })
    .blur(2)
    .linear(9, -1230)
    .convolve(smearKernel())
    .png({ compressionLevel: 0 })
    .toBuffer()
}

const { width = 0, height = 0 } = await sharp(photo).metadata()
const far = await streaks(width, height)
const near = await sharp(await streaks(Math.ceil(width / 2), Math.ceil(height / 2)))
  .resize(width, height)
  .png({ compressionLevel: 0 })
  .toBuffer()
await sharp(photo)
  .composite([
    { input: far, blend: 'screen' },
    { input: near, blend: 'screen' },
  ])
  .jpeg({ quality: 92 })
  .toFile(out)
