import {
  exifFor,
  exifOf,
  exifProblem,
  fileFormats,
  UserProblem,
  type ExportOptions,
  type Scene,
  outputOf,
  type PictureOutput,
  type OutputSize,
} from '@welkinar/core'
import { MovingPng } from '@welkinar/core/recipes'
import { priorities, type RenderPool } from '@welkinar/core/pool'
import { useEffect, useRef, useState } from 'react'
import { safeFileName, saveFile } from '../common/files'
import { showNotice, showProblem } from '../common/notices'
import { renderTrouble } from '../engine/renderTrouble'
import { loadPhotoFile } from '../storage/photos'

/** Side of the part of a picture that a size is estimated from, px. */
const SAMPLE = 512

/** About how large a file would be, bytes, by its middle. */
export async function estimatedBytes(
  output: PictureOutput,
  options: ExportOptions,
  pool: RenderPool,
  signal: AbortSignal,
): Promise<number> {
  const { rect } = output
  const [width, height] = [Math.min(SAMPLE, rect.width), Math.min(SAMPLE, rect.height)]
  const part = { x: rect.x + Math.floor((rect.width - width) / 2), y: rect.y + Math.floor((rect.height - height) / 2), width, height }
  const file = await pool.renderFile({ ...output, rect: part, tileSize: SAMPLE, priority: priorities.thumbnails, options, signal })
  return (file.size * rect.width * rect.height) / (width * height)
}

export interface ExportProgress {
  /** How much is computed, 0-1. */
  readonly done: number
}

export interface Exported {
  readonly fileName: string
  readonly bytes: number
  readonly seconds: number
}

const TILE = 512

/** How a picture moves in a file: how long it takes to come round, and how many frames a second it has. */
export interface Motion {
  readonly seconds: number
  readonly rate: number
}

/** What is asked for. */
export interface FileChoice {
  readonly options: ExportOptions
  readonly size: OutputSize
  readonly keepsPlace: boolean
  /** Nothing for a picture that stands still. */
  readonly motion: Motion | undefined
}

async function movingFile(frames: number, rate: number, oneFrame: (index: number) => Promise<Blob>): Promise<Blob> {
  const moving = new MovingPng(frames, rate)
  for (let index = 0; index < frames; index++) moving.add(new Uint8Array(await (await oneFrame(index)).arrayBuffer()))
  return moving.finish()
}

/** Makes the file of a scene at full size, tile by tile, and hands it to the person. */
export function useExport(scene: Scene, pool: RenderPool) {
  const [progress, setProgress] = useState<ExportProgress>()
  const [exported, setExported] = useState<Exported>()
  const running = useRef<AbortController>(undefined)
  useEffect(() => () => running.current?.abort(), [])
  const start = async ({ options, size, keepsPlace, motion }: FileChoice): Promise<void> => {
    const abort = new AbortController()
    running.current = abort
    const began = performance.now()
    setExported(undefined)
    try {
      setProgress({ done: 0 })
      const output = outputOf(scene, size)
      const stored = await loadPhotoFile(scene.photo.id)
      const exif = exifFor(stored && exifOf(new Uint8Array(await stored.file.arrayBuffer())), output.rect, keepsPlace, options.space)
      const frames = motion ? Math.round(motion.seconds * motion.rate) : 1
      const oneFrame = (index: number): Promise<Blob> =>
        pool.renderFile({
          ...(index === 0 ? output : outputOf({ ...scene, phase: index / frames }, size)),
          exif,
          tileSize: TILE,
          priority: priorities.export,
          keep: 'nothing',
          options,
          signal: abort.signal,
          onProgress: (part) => setProgress({ done: (index + part) / frames }),
        })
      const file = motion ? await movingFile(frames, motion.rate, oneFrame) : await oneFrame(0)
      if (abort.signal.aborted) return
      const fileName = `${safeFileName(scene.name)}.${fileFormats[options.format].endings[0]}`
      saveFile(file, fileName)
      const leftOut = exifProblem(options.format, exif)
      if (leftOut) showNotice(leftOut)
      setExported({ fileName, bytes: file.size, seconds: (performance.now() - began) / 1000 })
    } catch (error) {
      if (!abort.signal.aborted) showProblem(new UserProblem(renderTrouble(error, scene, 'The file')), 'Exporting')
    } finally {
      setProgress(undefined)
    }
  }
  return { progress, exported, start, cancel: () => running.current?.abort() }
}
