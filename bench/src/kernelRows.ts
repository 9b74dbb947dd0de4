import sharp from 'sharp'
import { Evaluator } from '../../core/src/graph/evaluator'
import type { GraphNode } from '../../core/src/graph/node'
import { gaussianBlurNode } from '../../core/src/operations/blurs/gaussianBlur/gaussianBlur'
import { luminosityMaskNode } from '../../core/src/operations/masks/luminosityMask/luminosityMask'
import { mixNode } from '../../core/src/operations/mixing/mix/mix'
import { photoNode } from '../../core/src/operations/sources/photo/photo'
import { gridAt, gridBounds } from '../../core/src/planes/grid'
import { splitIntoTiles } from '../../core/src/planes/rect'
import { renderTile } from '../../core/src/render/renderTile'
import { alternate, ratioRow, type Row } from './measure'
import { HEIGHT, WIDTH, type BenchPhoto } from './photo24'
import { operations } from '../../core/src/operations/registry'

const TILE = 512
/** Of a thread in the application with two. */
const BUDGET = 320e6
const SCREEN_LIMIT =
  'ours computes the luminosity mask too, and works on 32-bit floats, dithered on the way out; sharp works on 8-bit codes'
const raw = { width: WIDTH, height: HEIGHT, channels: 4 as const }
/** The setting of sharp that is as accurate as ours; its own defaults cut the kernel short and work on 8 bits. */
const exactBlur = { precision: 'float' as const, minAmplitude: 0.001 }

/** Gaussian blurs and Screen through a mask, 8 bits in and out, one thread each. */
export async function kernelRows({ kernels, photo, pixels }: BenchPhoto): Promise<Row[]> {
  sharp.concurrency(1)
  const grid = gridAt(photo, 1)
  const run = (node: GraphNode): void => {
    // A new one each time, so that nothing is left over from the run before; within a run tiles share what is coarse, as in use.
    const evaluator = new Evaluator({ kernels, operations, store: BUDGET })
    evaluator.addPhoto(photo)
    for (const tile of splitIntoTiles(gridBounds(grid), TILE)) renderTile(evaluator, node, grid, tile)
    evaluator.dropPhoto(photo.id)
  }
  const source = photoNode('bench')
  const rows: Row[] = []
  const rgb = await sharp(pixels, { raw }).removeAlpha().raw().toBuffer()
  const rgbRaw = { ...raw, channels: 3 as const }
  for (const [sigma, reach, runs] of [
    [2, 1, 5],
    [20, 0.35, 5],
  ] as const) {
    const blurred = (options: object) =>
      sharp(rgb, { raw: rgbRaw })
        .blur({ sigma, ...options })
        .raw()
        .toBuffer()
    const times = await alternate(
      () => run(gaussianBlurNode(source, sigma)),
      () => blurred(exactBlur),
      runs,
    )
    const quick = await alternate(
      () => 0,
      () => blurred({}),
      3,
    )
    const remark = `sharp's 8-bit integer default, which is not as accurate: ${Math.round(quick.other)} ms`
    rows.push(ratioRow(`Gaussian σ ${sigma} px, RGB, 24 MP, 1 thread`, times, 'sharp, float, minAmplitude 0.001', reach, remark))
  }
  const wide = await alternate(
    () => run(gaussianBlurNode(source, 300)),
    () => run(gaussianBlurNode(source, 30)),
    3,
  )
  rows.push(ratioRow('Gaussian σ 300 px, RGB, 24 MP, 1 thread', wide, 'ours, σ 30 px', 1.5))
  rows.push(await screenRow(run, pixels))
  return rows
}

/** A light colour over the photo by Screen, kept to the brights. sharp gets the same mask and colour as a ready RGBA picture. */
async function screenRow(run: (node: GraphNode) => void, pixels: Uint8ClampedArray): Promise<Row> {
  const source = photoNode('bench')
  const mask = luminosityMaskNode(source, { channel: 'encodedLuma', curve: 'brights', handles: [0, 1, 1, 1], steepness: 0 })
  // The mask is the alpha of one colour, as in the overlay.
  const node = mixNode(source, mask, undefined, { mode: 'screen', amount: 0.6, linear: false, colour: [0.9, 0.95, 1] })
  const { data } = await sharp(pixels, { raw }).greyscale().raw().toBuffer({ resolveWithObject: true })
  const overlay = Buffer.alloc(WIDTH * HEIGHT * 4, 240)
  const step = data.length / (WIDTH * HEIGHT)
  for (let i = 0; i < WIDTH * HEIGHT; i++) overlay[4 * i + 3] = 0.6 * (data[i * step] ?? 0)
  const composite = () =>
    sharp(pixels, { raw })
      .composite([{ input: overlay, raw, blend: 'screen' }])
      .raw()
      .toBuffer()
  const times = await alternate(() => run(node), composite)
  return ratioRow('Screen through a mask, RGB, 24 MP, 1 thread', times, 'sharp composite', 0.25, SCREEN_LIMIT)
}
