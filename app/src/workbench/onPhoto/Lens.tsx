import Box from '@mui/material/Box'
import { gridAt, regionOnGrid, type GraphNode, type PictureSource } from '@welkinar/core'
import { priorities, type RenderPool } from '@welkinar/core/pool'
import { useEffect, useRef, type ReactNode } from 'react'
import { canvasSettings, imageOf } from '../../engine/canvasSpace'
import { showProblem } from '../../common/notices'
import { ink } from '../../theme'
import type { ViewPort } from './viewPort'
import { screenPoint, type Point } from './geometry'
import { GuideLine } from './Handle'
import { usePool } from '../../scene/openSceneContext'

interface LensProps {
  readonly photo: PictureSource['photo']
  readonly port: ViewPort
  /** What is seen in it; `undefined` for nothing yet. */
  readonly node: GraphNode
  /** Its middle, photo px. */
  readonly at: Point
  /** Photo px across. */
  readonly seen: number
  readonly children?: ReactNode
}

/** Css px. */
const SIDE = 144
const GAP = 26

/** A part of the photo, larger, beside the place that it shows. */
export function Lens({ photo, port, node, at, seen, children }: LensProps) {
  const pool = usePool()
  const canvas = useRef<HTMLCanvasElement>(null)
  const { x, y } = at
  useEffect(() => {
    const abort = new AbortController()
    draw({ pool, photo, node, seen }, { x, y }, canvas, abort.signal).catch((error: unknown) => {
      if (!abort.signal.aborted) showProblem(error, 'Showing the photo')
    })
    return () => abort.abort()
  }, [pool, photo, node, seen, x, y])
  const place = screenPoint(port, at)
  const right = place.x + GAP + SIDE < port.width
  return (
    <Box
      data-testid="lens"
      sx={{
        position: 'absolute',
        left: right ? place.x + GAP : place.x - GAP - SIDE,
        top: Math.max(4, Math.min(port.height - SIDE - 4, place.y - SIDE - 8)),
        width: SIDE,
        height: SIDE,
        border: `1px solid ${ink.ink}`,
        outline: '1px solid #fff',
        bgcolor: ink.surround,
        pointerEvents: 'none',
        overflow: 'hidden',
      }}
    >
      <canvas
        ref={canvas}
        width={seen}
        height={seen}
        style={{ width: '100%', height: '100%', display: 'block', imageRendering: seen < SIDE / 4 ? 'pixelated' : 'auto' }}
      />
      <svg viewBox="0 0 144 144" style={{ position: 'absolute', inset: 0 }}>
        <GuideLine d="M72 44V64M72 80V100M44 72H64M80 72H100" />
      </svg>
      {children}
    </Box>
  )
}

async function draw(
  { pool, photo, node, seen }: Pick<LensProps, 'photo' | 'node' | 'seen'> & { readonly pool: RenderPool },
  { x, y }: Point,
  target: { readonly current: HTMLCanvasElement | null },
  signal: AbortSignal,
): Promise<void> {
  const grid = gridAt(photo, 1)
  const [left, top] = [Math.round(x - seen / 2), Math.round(y - seen / 2)]
  const rect = regionOnGrid({ x: left, y: top, width: seen, height: seen }, grid)
  const isSeen = rect.width > 0 && rect.height > 0
  const pixels = isSeen ? await pool.renderPixels({ node, grid, rect, tileSize: seen, priority: priorities.view, signal }) : undefined
  const context = target.current?.getContext('2d', canvasSettings(photo.id))
  if (signal.aborted || !context) return
  context.clearRect(0, 0, seen, seen)
  if (pixels) context.putImageData(imageOf(pixels, rect, photo.id), rect.x - left, rect.y - top)
}
