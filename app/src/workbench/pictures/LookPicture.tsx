import Box from '@mui/material/Box'
import { gridAt, regionOnGrid, type GraphNode, type PictureSource, type Rect, type Size } from '@welkinar/core'
import { priorities, type RenderPool } from '@welkinar/core/pool'
import { memo, useEffect, useRef, useState } from 'react'
import { canvasSettings, imageOf } from '../../engine/canvasSpace'
import { ink } from '../../theme'
import { usePool } from '../../scene/openSceneContext'

interface LookPictureProps {
  readonly node: GraphNode
  readonly photo: PictureSource['photo']
  /** What is shown of the photo; all of it without it. */
  readonly frame?: Rect
  /** Css px. */
  readonly width: number
  readonly height: number
  /** Part of the frame's width that is shown, around its middle; 1 is all of it. */
  readonly part?: number
  readonly label: string
  /** Whether somebody waits for it: it begins at once. */
  readonly awaited?: boolean
}

/** Longer than a pause within a drag, so that the view has the threads for itself. */
const SETTLE_MS = 200

/** Whether what a component is given is the same: its look by the key of the node, the rest as it is. */
export function hasSameLook<P extends { readonly node: GraphNode }>(one: P, other: P): boolean {
  return (Object.keys(one) as (keyof P)[]).every((name) => (name === 'node' ? one.node.key === other.node.key : one[name] === other[name]))
}

/** A small live picture of one look. It waits for the view, which goes first. */
export const LookPicture = memo(function LookPicture({
  node,
  photo,
  frame,
  width,
  height,
  part = 1,
  label,
  awaited = false,
}: LookPictureProps) {
  const pool = usePool()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [failed, setFailed] = useState(false)
  const { id, width: photoWidth, height: photoHeight } = photo
  const { x, y, width: frameWidth, height: frameHeight } = frame ?? { x: 0, y: 0, ...photo }
  useEffect(() => {
    const abort = new AbortController()
    const timer = setTimeout(
      () => {
        const size = { id, width: photoWidth, height: photoHeight }
        const whole = { x, y, width: frameWidth, height: frameHeight }
        paint(pool, node, size, partOf(whole, { width, height }, part), { width, height }, abort.signal, canvas).then(
          () => setFailed(false),
          () => setFailed(!abort.signal.aborted),
        )
      },
      awaited ? 0 : SETTLE_MS,
    )
    return () => {
      clearTimeout(timer)
      abort.abort()
    }
  }, [pool, node.key, id, photoWidth, photoHeight, x, y, frameWidth, frameHeight, width, height, part, awaited]) // eslint-disable-line react-hooks/exhaustive-deps -- the key stands for the node
  return (
    <Box
      component="canvas"
      ref={canvas}
      {...(label === '' && !failed
        ? { 'aria-hidden': true }
        : { role: 'img', 'aria-label': failed ? `${label}: it could not be computed` : label })}
      title={failed ? 'This picture could not be computed; it is older.' : undefined}
      sx={{ width, height, display: 'block', flex: 'none', bgcolor: ink.stage, opacity: failed ? 0.4 : 1 }}
    />
  )
}, hasSameLook)

async function paint(
  pool: RenderPool,
  node: GraphNode,
  photo: PictureSource['photo'],
  region: Rect,
  box: Size,
  signal: AbortSignal,
  canvas: { readonly current: HTMLCanvasElement | null },
): Promise<void> {
  const ratio = window.devicePixelRatio
  const grid = gridAt(photo, Math.min(1, (box.width * ratio) / region.width))
  const rect = regionOnGrid(region, grid)
  const pixels = await pool.renderPixels({ node, grid, rect, tileSize: 512, priority: priorities.steps, signal })
  const target = canvas.current
  const context = target?.getContext('2d', canvasSettings(photo.id))
  if (signal.aborted || !target || !context) return
  target.width = rect.width
  target.height = rect.height
  context.putImageData(imageOf(pixels, rect, photo.id), 0, 0)
}

/** The middle of a frame in the shape of the box. */
function partOf(frame: Rect, box: Size, part: number): Rect {
  const shape = box.width / box.height
  const width = Math.min(frame.width * part, frame.height * part * Math.max(shape, frame.width / frame.height), frame.height * shape)
  const height = width / shape
  return { x: frame.x + (frame.width - width) / 2, y: frame.y + (frame.height - height) / 2, width, height }
}
