import { gridAt, gridBounds, sceneGraph, UserProblem, type ExportOptions, type Scene } from '@welkinar/core'
import { priorities, type RenderPool } from '@welkinar/core/pool'
import { useEffect, useRef, useState } from 'react'
import { safeFileName, saveFile } from '../common/files'
import { showProblem } from '../common/notices'
import { renderTrouble } from '../engine/renderTrouble'

export interface ExportProgress {
  readonly doing: string
  /** 0-1; undefined while it cannot be told. */
  readonly done?: number
}

export interface Exported {
  readonly fileName: string
  readonly bytes: number
  readonly seconds: number
}

const TILE = 512
const endings = { png: 'png', jpeg: 'jpg' }

/** Makes the file of a scene at full size, tile by tile, and hands it to the person. */
export function useExport(scene: Scene, pool: RenderPool) {
  const [progress, setProgress] = useState<ExportProgress>()
  const [exported, setExported] = useState<Exported>()
  const running = useRef<AbortController>(undefined)
  useEffect(() => () => running.current?.abort(), [])
  const start = async (options: ExportOptions): Promise<void> => {
    const abort = new AbortController()
    running.current = abort
    const began = performance.now()
    setExported(undefined)
    try {
      const file = await makeFile(pool, scene, options, abort.signal, setProgress)
      if (abort.signal.aborted) return
      const fileName = `${safeFileName(scene.name)}.${endings[options.format]}`
      saveFile(file, fileName)
      setExported({ fileName, bytes: file.size, seconds: (performance.now() - began) / 1000 })
    } catch (error) {
      if (!abort.signal.aborted) showProblem(new UserProblem(renderTrouble(error, scene, 'The file')), 'Exporting')
    } finally {
      setProgress(undefined)
    }
  }
  return { progress, exported, start, cancel: () => running.current?.abort() }
}

async function makeFile(
  pool: RenderPool,
  scene: Scene,
  options: ExportOptions,
  signal: AbortSignal,
  onProgress: (progress: ExportProgress) => void,
): Promise<Blob> {
  const grid = gridAt(scene.photo, 1)
  onProgress({ doing: 'Computing the picture', done: 0 })
  const pixels = await pool.renderPixels({
    node: sceneGraph(scene),
    grid,
    rect: gridBounds(grid),
    tileSize: TILE,
    priority: priorities.export,
    keep: 'nothing',
    signal,
    onProgress: (done) => onProgress({ doing: 'Computing the picture', done }),
  })
  onProgress({ doing: `Writing the ${options.format.toUpperCase()} file` })
  return pool.encode(pixels, grid.width, grid.height, options)
}
