import { Evaluator } from '../../core/src/graph/evaluator'
import type { GraphNode } from '../../core/src/graph/node'
import { gaussianBlurNode } from '../../core/src/operations/blurs/gaussianBlur/gaussianBlur'
import { photoNode } from '../../core/src/operations/sources/photo/photo'
import { radialBlurNode } from '../../core/src/operations/blurs/radialBlur/radialBlur'
import { gridAt, gridBounds } from '../../core/src/planes/grid'
import { splitIntoTiles } from '../../core/src/planes/rect'
import { renderTile } from '../../core/src/render/renderTile'
import { alternate, ratioRow, type Row } from './measure'
import type { BenchPhoto } from './photo24'
import { operations } from '../../core/src/operations/registry'

const TILE = 512
const CACHE_BYTES = 4e8
const RUNS = 3

/** What a zoom blur costs against its strength, and a wide blur against a narrow one. One thread. */
export async function lightRows({ kernels, photo }: BenchPhoto): Promise<Row[]> {
  const draw = (node: GraphNode, scale: number): void => {
    const evaluator = new Evaluator({ kernels, operations, store: CACHE_BYTES })
    evaluator.addPhoto(photo)
    const grid = gridAt(photo, scale)
    for (const tile of splitIntoTiles(gridBounds(grid), TILE)) {
      renderTile(evaluator, node, grid, tile)
      evaluator.trim()
    }
    evaluator.dropPhoto(photo.id)
  }
  const zoomed = (strength: number): GraphNode =>
    radialBlurNode(photoNode(photo.id), { kind: 'zoom', x: 0.6 * photo.width, y: 0.4 * photo.height, strength, sides: 'outward' })
  const rows: Row[] = []
  for (const strength of [100, 300, 1200]) {
    const times = await alternate(
      () => draw(zoomed(strength), 0.5),
      () => draw(zoomed(30), 0.5),
      RUNS,
    )
    rows.push(ratioRow(`Zoom blur of ${strength} px, 6 MP view of 24 MP, RGB, 1 thread`, times, 'of 30 px', strength / 30))
  }
  const wide = await alternate(
    () => draw(gaussianBlurNode(photoNode(photo.id), 300), 1),
    () => draw(gaussianBlurNode(photoNode(photo.id), 30), 1),
    1,
  )
  rows.push({ work: 'Gaussian σ 300 px, RGB, 24 MP, 1 thread', ours: wide.ours, other: { name: 'σ 30 px', ms: wide.other } })
  return rows
}
