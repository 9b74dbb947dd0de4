import { hexFromRgb, sceneGraph, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useScene } from '../../../scene/sceneStore'
import type { PhotoTool } from '../../../scene/viewState'
import type { ViewPort } from '../viewPort'
import { limited, type Point } from './geometry'
import { TapSurface } from './TapSurface'

interface MarkToolProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly port: ViewPort
  readonly mark: Mark
}

type Mark = Extract<PhotoTool, { kind: 'mark' }>['mark']

/** Takes a tap on the photo: a mark of the scene lies there. */
export function MarkTool({ pool, source, port, mark }: MarkToolProps) {
  return <TapSurface port={port} onTap={(at) => setMark(pool, source, mark, at)} />
}

async function setMark(pool: RenderPool, source: PictureSource, mark: Mark, at: Point): Promise<void> {
  const { change, set } = useScene.getState()
  if (mark === 'light') {
    const found = await pool.measureLight(sceneGraph(source, { kind: 'photo' }), source.photo, at.x, at.y)
    const place = limited(found)
    change('Set a light', ({ marks }) => {
      const name = `Light ${marks.lights.length + 1}`
      marks.lights.push({ id: crypto.randomUUID(), name, ...place, colour: hexFromRgb(found.colour), strength: 100, radius: found.radius })
    })
  } else if (mark === 'focal') change('Set the focal point', ({ marks }) => void (marks.focal = at))
  else change(`Set the ${mark}`, ({ marks }) => void (marks[mark] = { y: at.y, turn: marks[mark]?.turn ?? 0 }))
  if (mark !== 'light') set({ tool: undefined })
}
