import Box from '@mui/material/Box'
import { gridAt, regionOnGrid, type GraphNode, type Grid, type PictureSource, type Rect, type Size } from '@welkinar/core'
import { priorities, type Priority, type RenderPool } from '@welkinar/core/pool'
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
  /** Whether a coarse picture comes first; exact ones come after all of these. */
  readonly coarseFirst?: boolean
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
  coarseFirst = false,
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
        const picture = { pool, node, photo: size, region: partOf(whole, { width, height }, part), box: { width, height }, canvas }
        paint(picture, coarseFirst, abort.signal).then(
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
  }, [pool, node.key, id, photoWidth, photoHeight, x, y, frameWidth, frameHeight, width, height, part, awaited, coarseFirst]) // eslint-disable-line react-hooks/exhaustive-deps -- the key stands for the node
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

interface Painted {
  readonly pool: RenderPool
  readonly node: GraphNode
  readonly photo: PictureSource['photo']
  readonly region: Rect
  readonly box: Size
  readonly canvas: { readonly current: HTMLCanvasElement | null }
}

/** How much smaller a coarse picture is. */
const COARSE = 3

async function paint(picture: Painted, coarseFirst: boolean, signal: AbortSignal): Promise<void> {
  const { photo, region, box } = picture
  const scale = Math.min(1, (box.width * window.devicePixelRatio) / region.width)
  if (coarseFirst) await paintOn(picture, { ...gridAt(photo, scale / COARSE), draft: true }, priorities.steps, signal)
  await paintOn(picture, gridAt(photo, scale), coarseFirst ? priorities.measure : priorities.steps, signal)
}

async function paintOn({ pool, node, photo, region, canvas }: Painted, grid: Grid, priority: Priority, signal: AbortSignal): Promise<void> {
  const rect = regionOnGrid(region, grid)
  const pixels = await pool.renderPixels({ node, grid, rect, tileSize: 512, priority, signal })
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
