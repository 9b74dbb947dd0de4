import type { PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useScene } from '../../../scene/sceneStore'
import type { PhotoTool } from '../../../scene/viewState'
import { markLight } from '../../actions/markLight'
import type { ViewPort } from '../../onPhoto/viewPort'
import type { Point } from '../../onPhoto/geometry'
import { TapSurface } from '../../onPhoto/TapSurface'
import { usePool, useSource } from '../../../scene/openSceneContext'

interface MarkToolProps {
  readonly port: ViewPort
  readonly mark: Mark
}

type Mark = Extract<PhotoTool, { kind: 'mark' }>['mark']

/** Takes a tap on the photo: a mark of the scene lies there. */
export function MarkTool({ port, mark }: MarkToolProps) {
  const pool = usePool()
  const source = useSource()
  return <TapSurface port={port} onTap={(at) => setMark(pool, source, mark, at)} />
}

async function setMark(pool: RenderPool, source: PictureSource, mark: Mark, at: Point): Promise<void> {
  const { change, set } = useScene.getState()
  if (mark === 'light') await markLight(pool, source, at)
  else if (mark === 'focal') change('Set the centre of interest', ({ marks }) => void (marks.focal = at))
  else change(`Set the ${mark}`, ({ marks }) => void (marks[mark] = { y: at.y, turn: marks[mark]?.turn ?? 0 }))
  if (mark !== 'light') set({ tool: undefined })
}
