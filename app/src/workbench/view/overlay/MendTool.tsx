import { sceneGraph, UserProblem, type PictureSource, type Repair } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useRef, useState, type PointerEvent } from 'react'
import { showProblem } from '../../../common/notices'
import { useScene } from '../../../scene/sceneStore'
import { useMending } from '../../actions/mending'
import type { ViewPort } from '../../onPhoto/viewPort'
import { limited, pointerPlace, screenPoint, toPhoto, type Point } from '../../onPhoto/geometry'
import { ToolHint } from '../../onPhoto/ToolHint'
import { ink } from '../../../theme'
import { usePool, useSource } from '../../../scene/openSceneContext'

interface MendToolProps {
  readonly port: ViewPort
}

/** A drag shorter than this, css px, is a press: the spot is as large as the last one. */
const LEAST = 5

/** Mends a spot that is pressed, or drawn from its middle outwards, from the place nearby that is most like its surroundings. */
export function MendTool({ port }: MendToolProps) {
  const pool = usePool()
  const source = useSource()
  const { photo } = source
  const radius = useMending((state) => state.radius) ?? startRadius(source)
  const keeps = useMending((state) => state.keeps)
  const [at, setAt] = useState<Point>()
  const down = useRef<Point>(undefined)
  const [drawn, setDrawn] = useState<number>()
  const place = (event: PointerEvent<SVGSVGElement>): Point => limited(toPhoto(port, pointerPlace(event, event.currentTarget)))
  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    const here = place(event)
    if (!down.current) return setAt(here)
    const far = Math.hypot(here.x - down.current.x, here.y - down.current.y)
    setDrawn(far * port.zoom < LEAST ? undefined : Math.round(2 * far) / 2)
  }
  const onPointerUp = () => {
    const middle = down.current
    down.current = undefined
    setDrawn(undefined)
    if (!middle || middle.x < 0 || middle.y < 0 || middle.x > photo.width || middle.y > photo.height) return
    const spot = { ...middle, radius: drawn ?? radius }
    useMending.setState({ radius: spot.radius })
    mend(pool, source, spot, keeps).catch((error: unknown) => showProblem(error, 'Mending the spot'))
  }
  const circle = at && { ...screenPoint(port, at), r: (drawn ?? radius) * port.zoom }
  return (
    <>
      <svg
        width={port.width}
        height={port.height}
        data-testid="mend surface"
        style={{ position: 'absolute', inset: 0, touchAction: 'none', cursor: 'crosshair' }}
        onPointerDown={(event) => {
          if (event.button !== 0) return
          event.stopPropagation()
          event.currentTarget.setPointerCapture(event.pointerId)
          down.current = place(event)
          setAt(down.current)
        }}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
        onPointerLeave={() => down.current ?? setAt(undefined)}
        onPointerCancel={() => {
          down.current = undefined
          setDrawn(undefined)
        }}
        onDoubleClick={(event) => event.stopPropagation()}
      >
        {circle && (
          <g fill="none" pointerEvents="none">
            <circle cx={circle.x} cy={circle.y} r={circle.r} stroke={ink.ink} strokeOpacity={0.55} strokeWidth={3} />
            <circle cx={circle.x} cy={circle.y} r={circle.r} stroke={ink.white} strokeWidth={1.25} />
          </g>
        )}
      </svg>
      <ToolHint text="Press a spot, or draw a circle from its middle." />
    </>
  )
}

/** A thousandth of the photo's area, as a disc. */
function startRadius({ photo }: PictureSource): number {
  return Math.max(2, Math.round(Math.sqrt((photo.width * photo.height) / 1000 / Math.PI) / 2))
}

async function mend(
  pool: RenderPool,
  source: PictureSource,
  spot: Pick<Repair, 'x' | 'y' | 'radius'>,
  keeps: Repair['keeps'],
): Promise<void> {
  const { photo } = source
  const sceneId = useScene.getState().history?.scene.id
  const from =
    keeps === 'texture' ? spot : await pool.findPatch(sceneGraph(source, { kind: 'groundwork' }), photo, spot.x, spot.y, spot.radius)
  if (!from)
    throw new UserProblem('There is no place nearby that is large enough to mend it from. A smaller circle, or “Tone only”, would do.')
  // Another scene may have been opened meanwhile.
  if (useScene.getState().history?.scene.id !== sceneId) return
  const id = crypto.randomUUID()
  const made = { id, x: spot.x, y: spot.y, radius: spot.radius, fromX: from.x, fromY: from.y, soft: 25, keeps }
  if (useScene.getState().change('Mend a spot', ({ groundwork }) => void groundwork.repairs.push(made)))
    useScene.getState().set({ chosenRepair: id })
}
