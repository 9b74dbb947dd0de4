import Box from '@mui/material/Box'
import { hexFromRgb, hueOf, maskContext, sceneGraph, tonesOf, type Mask, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useRef, type PointerEvent } from 'react'
import { showProblem } from '../../../common/notices'
import { changeMask, useScene, type PhotoTool } from '../../../scene/sceneStore'
import type { ViewPort } from '../viewPort'
import { limited, pointerPlace, toPhoto, type Point } from './geometry'

interface TapSurfaceProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly port: ViewPort
  readonly tool: PhotoTool
  readonly ownerId: string | undefined
  readonly mask: Mask | undefined
}

/** Takes one tap on the photo for the tool that is held: a mark, a colour, a place to grow from. */
export function TapSurface(props: TapSurfaceProps) {
  const { port } = props
  const down = useRef<Point>(undefined)
  const onPointerUp = (event: PointerEvent<HTMLElement>) => {
    const from = down.current
    down.current = undefined
    const place = pointerPlace(event, event.currentTarget)
    if (!from || Math.hypot(place.x - from.x, place.y - from.y) > 8) return
    tap(props, limited(toPhoto(port, place))).catch((error: unknown) => showProblem(error, 'Reading the photo'))
  }
  return (
    <Box
      data-testid="tap surface"
      onPointerDown={(event) => {
        event.stopPropagation()
        down.current = pointerPlace(event, event.currentTarget)
      }}
      onPointerUp={onPointerUp}
      onDoubleClick={(event) => event.stopPropagation()}
      sx={{ position: 'absolute', inset: 0, cursor: 'crosshair', touchAction: 'none' }}
    />
  )
}

async function tap({ pool, source, tool, ownerId, mask }: TapSurfaceProps, at: Point): Promise<void> {
  if (tool.kind === 'mark') return setMark(pool, source, tool.mark, at)
  if (!ownerId || (mask?.kind !== 'similar' && mask?.kind !== 'colour')) return
  const colour = await pool.colourAt(tonesOf(mask, maskContext(source, ownerId)), source.photo, at.x, at.y)
  if (mask.kind === 'similar') {
    return changeMask(ownerId, mask, 'Tap a place', ({ taps }) => void taps.push({ ...at, colour: hexFromRgb(colour) }))
  }
  changeMask(ownerId, mask, 'Pick a hue', (target) => void (target.hue = Math.round(hueOf(colour))))
  useScene.getState().set({ tool: undefined })
}

async function setMark(
  pool: RenderPool,
  source: PictureSource,
  mark: Extract<PhotoTool, { kind: 'mark' }>['mark'],
  at: Point,
): Promise<void> {
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
