import { hexFromRgb, sceneGraph, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useScene } from '../../scene/sceneStore'
import { limited, type Point } from '../onPhoto/geometry'

/**
 * Marks a light, with the colour and the size that the photo shows there.
 * @param at where it was tapped, photo px: the middle of the light nearby is marked
 * @param exact whether it lies just there, as what was read does, also beyond a border
 */
export async function markLight(pool: RenderPool, source: PictureSource, at: Point, exact = false): Promise<void> {
  const found = await pool.measureLight(sceneGraph(source, { kind: 'photo' }), source.photo, at.x, at.y)
  const place = limited(exact ? at : found)
  useScene.getState().change('Set a light', ({ marks }) => {
    const name = `Light ${marks.lights.length + 1}`
    marks.lights.push({ id: crypto.randomUUID(), name, ...place, colour: hexFromRgb(found.colour), strength: 100, radius: found.radius })
  })
}
