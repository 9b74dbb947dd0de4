import cvModule from '@techstark/opencv-js'
import { newMask, noMarks, type Mask, type MaskKind } from '@welkinar/core'
import sharp from 'sharp'
import { Evaluator } from '../../core/src/graph/evaluator'
import type { GraphNode } from '../../core/src/graph/node'
import { newEffect } from '../../core/src/effects/newEffect'
import { whereNode } from '../../core/src/masks/whereNode'
import { gaussianBlurNode } from '../../core/src/operations/blurs/gaussianBlur/gaussianBlur'
import { guidedFilterNode } from '../../core/src/operations/blurs/guidedFilter/guidedFilter'
import { luminosityMaskNode } from '../../core/src/operations/masks/luminosityMask/luminosityMask'
import { photoNode } from '../../core/src/operations/sources/photo/photo'
import type { PhotoData } from '../../core/src/photo/photoData'
import { gridAt, gridBounds } from '../../core/src/planes/grid'
import { splitIntoTiles } from '../../core/src/planes/rect'
import { maskContext } from '../../core/src/render/sceneGraph'
import { alternate, ratioRow, type Row } from './measure'
import { HEIGHT, WIDTH, type BenchPhoto } from './photo24'
import { operations } from '../../core/src/operations/registry'

const TILE = 512
const size = { width: WIDTH, height: HEIGHT }
const GUIDED_RADIUS = 12
/** Of a thread in the application with two. */
const BUDGET = 320e6
const GUIDED_EPSILON = 0.03 ** 2

/** Feather, guided filter and a list of ten masks over 24 megapixels, one thread. */
export async function maskRows({ kernels, photo, pixels }: BenchPhoto): Promise<Row[]> {
  const grid = gridAt(photo, 1)
  const evaluate = (node: GraphNode): void => {
    const evaluator = new Evaluator({ kernels, operations, store: BUDGET })
    evaluator.addPhoto(photo)
    for (const tile of splitIntoTiles(gridBounds(grid), TILE)) {
      evaluator.evaluate(node, tile, grid)
      evaluator.trim()
    }
    evaluator.dropPhoto(photo.id)
  }
  const source = photoNode(photo.id)
  const brights = luminosityMaskNode(source, {
    channel: 'encodedLuma',
    curve: 'brights',
    handles: [0, 1, 1, 1],
    steepness: 0,
  })
  const grey = await sharp(pixels, { raw: { ...size, channels: 4 } })
    .greyscale()
    .extractChannel(0)
    .raw()
    .toBuffer()
  const feather = await alternate(
    () => evaluate(gaussianBlurNode(brights, 20)),
    () =>
      sharp(grey, { raw: { ...size, channels: 1 } })
        .blur({ sigma: 20, precision: 'float', minAmplitude: 0.001 })
        .raw()
        .toBuffer(),
    3,
  )
  const theirs = await opencvGuidedFilter(grey)
  const guided = await alternate(() => evaluate(guidedFilterNode(brights, source, GUIDED_RADIUS, GUIDED_EPSILON)), theirs.run, 3)
  theirs.dispose()
  return [
    ratioRow(
      'Feather σ 20 px of a mask, 24 MP, 1 thread',
      feather,
      'sharp, float, minAmplitude 0.001',
      0.35,
      'ours computes the luminosity mask too',
    ),
    ratioRow(
      'Guided filter, radius 12 px, 24 MP, 1 thread',
      guided,
      'the same steps with OpenCV.js boxFilter',
      1,
      'ours reads the mask and the luma from the photo too',
    ),
    await listRow(evaluate, photo),
  ]
}

/** He's filter from OpenCV's own box filters on float planes; six planes in all, since its memory ends at 1 GB. */
async function opencvGuidedFilter(grey: Uint8Array): Promise<{ run(): void; dispose(): void }> {
  // The module is thenable and resolves with itself: it must not be awaited.
  const cv = cvModule
  if (!(cv as { Mat?: unknown }).Mat) await new Promise<void>((resolve) => (cv.onRuntimeInitialized = resolve))
  const plane = () => new cv.Mat(HEIGHT, WIDTH, cv.CV_32FC1)
  const [guide, meanI, meanP, a, b, room] = [plane(), plane(), plane(), plane(), plane(), plane()] as const
  for (let y = 0; y < HEIGHT; y++) for (let x = 0; x < WIDTH; x++) guide.data32F[y * WIDTH + x] = (grey[y * WIDTH + x] ?? 0) / 255
  const input = guide
  const window = new cv.Size(2 * GUIDED_RADIUS + 1, 2 * GUIDED_RADIUS + 1)
  const mean = (from: typeof guide, to: typeof guide): void =>
    cv.boxFilter(from, to, cv.CV_32F, window, new cv.Point(-1, -1), true, cv.BORDER_REPLICATE)
  const run = (): void => {
    mean(guide, meanI)
    mean(input, meanP)
    cv.multiply(guide, input, room)
    mean(room, a)
    cv.multiply(meanI, meanP, room)
    cv.subtract(a, room, a)
    cv.multiply(guide, guide, room)
    mean(room, b)
    cv.multiply(meanI, meanI, room)
    cv.subtract(b, room, b)
    b.convertTo(b, cv.CV_32F, 1, GUIDED_EPSILON)
    cv.divide(a, b, a)
    cv.multiply(a, meanI, room)
    cv.subtract(meanP, room, b)
    mean(a, meanI)
    mean(b, meanP)
    cv.multiply(meanI, guide, room)
    cv.add(room, meanP, room)
  }
  return { run, dispose: () => [guide, meanI, meanP, a, b, room].forEach((one) => one.delete()) }
}

/** What a list of ten masks costs against the first of them alone. */
async function listRow(evaluate: (node: GraphNode) => void, photo: PhotoData): Promise<Row> {
  const kinds: MaskKind[] = ['luminosity', 'luminosity', 'colour', 'ellipse', 'line', 'band', 'frame', 'outline', 'brush', 'cloud']
  const masks = kinds.map((kind, index) =>
    filled(newMask(size, { kind, id: String(index), join: index % 2 ? 'subtract' : 'keep', marks: noMarks })),
  )
  const context = maskContext({ photo, effects: [newEffect(size, { kind: 'rain', id: 'own' })] }, 'own')
  const node = (count: number): GraphNode => whereNode({ masks: masks.slice(0, count), hold: 90 }, context) ?? photoNode(photo.id)
  const times = await alternate(
    () => evaluate(node(10)),
    () => evaluate(node(1)),
    3,
  )
  return { work: 'A list of ten masks, 24 MP, 1 thread', ours: times.ours, other: { name: 'the first of them alone', ms: times.other } }
}

function filled(mask: Mask): Mask {
  const corner = (x: number, y: number) => ({ x, y, inX: -300, inY: 0, outX: 300, outY: 0 })
  if (mask.kind === 'outline')
    return { ...mask, paths: [{ hole: false, corners: [corner(1500, 900), corner(4800, 1500), corner(3000, 3500)] }] }
  if (mask.kind !== 'brush') return mask
  const points = Array.from({ length: 200 }, (_, i) => [600 + 24 * i, 2000 + 900 * Math.sin(i / 12), 1]).flat()
  const strokes = [0, 1, 2, 3].map((i) => ({
    size: 300,
    hardness: 40,
    flow: 80,
    level: 100,
    pressure: 'size' as const,
    erase: i === 3,
    guides: [],
    tolerance: 12,
    points,
  }))
  return { ...mask, strokes }
}
