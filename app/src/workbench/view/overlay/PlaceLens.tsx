import Box from '@mui/material/Box'
import { gridAt, regionOnGrid, sceneGraph, type PictureSource } from '@welkinar/core'
import { priorities, type RenderPool } from '@welkinar/core/pool'
import { useEffect, useRef } from 'react'
import { useScene } from '../../../scene/sceneStore'
import { showProblem } from '../../../common/notices'
import { ink } from '../../../theme'
import type { ViewPort } from '../viewPort'
import { screenPoint } from './geometry'
import { GuideLine } from './Handle'

interface PlaceLensProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly port: ViewPort
}

/** Css px. */
const SIDE = 144
/** Photo px across. */
const SEEN = 96
const CROSS = 22
const GAP = 26

/** While a place is dragged: a cross-hair at it, and beside it a lens with the photo without any effect, one and a half times its size. */
export function PlaceLens({ pool, source, port }: PlaceLensProps) {
  const placing = useScene((state) => state.placing)
  const canvas = useRef<HTMLCanvasElement>(null)
  const [x, y] = [placing?.x, placing?.y]
  useEffect(() => {
    if (x === undefined || y === undefined) return
    const abort = new AbortController()
    draw(pool, source, x, y, canvas, abort.signal).catch((error: unknown) => {
      if (!abort.signal.aborted) showProblem(error, 'Showing the photo')
    })
    return () => abort.abort()
  }, [pool, source, x, y])
  if (!placing) return null
  const at = screenPoint(port, placing)
  const right = at.x + GAP + SIDE < port.width
  return (
    <>
      <svg width={port.width} height={port.height} style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
        <GuideLine
          d={`M${at.x - CROSS} ${at.y}H${at.x - 9}M${at.x + 9} ${at.y}H${at.x + CROSS}M${at.x} ${at.y - CROSS}V${at.y - 9}M${at.x} ${at.y + 9}V${at.y + CROSS}`}
        />
      </svg>
      <Box
        data-testid="lens"
        sx={{
          position: 'absolute',
          left: right ? at.x + GAP : at.x - GAP - SIDE,
          top: Math.max(4, Math.min(port.height - SIDE - 4, at.y - SIDE - 8)),
          width: SIDE,
          height: SIDE,
          border: `1px solid ${ink.ink}`,
          outline: '1px solid #fff',
          bgcolor: ink.surround,
          pointerEvents: 'none',
          overflow: 'hidden',
        }}
      >
        <canvas ref={canvas} width={SEEN} height={SEEN} style={{ width: '100%', height: '100%', display: 'block' }} />
        <svg viewBox="0 0 144 144" style={{ position: 'absolute', inset: 0 }}>
          <GuideLine d="M72 44V64M72 80V100M44 72H64M80 72H100" />
        </svg>
      </Box>
    </>
  )
}

async function draw(
  pool: RenderPool,
  source: PictureSource,
  x: number,
  y: number,
  target: { readonly current: HTMLCanvasElement | null },
  signal: AbortSignal,
): Promise<void> {
  const grid = gridAt(source.photo, 1)
  const [left, top] = [Math.round(x - SEEN / 2), Math.round(y - SEEN / 2)]
  const rect = regionOnGrid({ x: left, y: top, width: SEEN, height: SEEN }, grid)
  const node = sceneGraph(source, { kind: 'photo' })
  const seen = rect.width > 0 && rect.height > 0
  const pixels = seen ? await pool.renderPixels({ node, grid, rect, tileSize: SEEN, priority: priorities.view, signal }) : undefined
  const context = target.current?.getContext('2d')
  if (signal.aborted || !context) return
  context.clearRect(0, 0, SEEN, SEEN)
  if (pixels) context.putImageData(new ImageData(pixels, rect.width, rect.height), rect.x - left, rect.y - top)
}
