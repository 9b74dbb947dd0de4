import Box from '@mui/material/Box'
import type { Effect } from '@welkinar/core'
import { useRef, useState, type PointerEvent } from 'react'
import { useKeys } from '../../../keys/listener'
import { useSource } from '../../../scene/openSceneContext'
import { changeEffect } from '../../../scene/sceneStore'
import { correctHere, ellipseBetween, ellipseInTheMiddle, ellipseOf, pulled, pulledTo, valueOf } from '../../actions/correctHere'
import { ellipsePath, EllipseHandles } from '../../maskKinds/ellipse/EllipseHandles'
import { limited, pointerPlace, screenPoint, toPhoto, type Point } from '../../onPhoto/geometry'
import { Caption, GuideLine } from '../../onPhoto/Handle'
import { ToolHint } from '../../onPhoto/ToolHint'
import type { ViewPort } from '../../onPhoto/viewPort'
import { ink } from '../../../theme'
import { HandleLayer } from './HandleLayer'

interface CorrectToolProps {
  readonly port: ViewPort
  /** The selected effect. */
  readonly effect: Effect | undefined
}

/** Shorter drags make nothing, css px. */
const LEAST = 8

/** Makes corrections by drags: across the photo an ellipse with a correction in it; from the ring in its middle that is turned, from its handles reshaped. */
export function CorrectTool({ port, effect }: CorrectToolProps) {
  const [drag, setDrag] = useState<{ readonly from: Point; readonly to: Point; readonly round: boolean }>()
  const { photo } = useSource()
  const ellipse = ellipseOf(effect)
  const drawn = drag && ellipseBetween(drag.from, drag.to, { round: drag.round, least: LEAST / port.zoom })
  useKeys([{ id: 'tool-done', run: () => void correctHere(ellipseInTheMiddle({ x: port.centreX, y: port.centreY }, photo)) }], 'tool')
  const placeOf = (event: PointerEvent<HTMLElement>): Point => limited(toPhoto(port, pointerPlace(event, event.currentTarget)))
  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    const from = placeOf(event)
    setDrag({ from, to: from, round: event.shiftKey })
  }
  const onPointerUp = () => {
    setDrag(undefined)
    if (drawn) correctHere(drawn)
  }
  return (
    <>
      <Box
        data-testid="correct surface"
        onPointerDown={onPointerDown}
        onPointerMove={(event) => drag && setDrag({ ...drag, to: placeOf(event), round: event.shiftKey })}
        onPointerUp={onPointerUp}
        onPointerCancel={() => setDrag(undefined)}
        onDoubleClick={(event) => event.stopPropagation()}
        sx={{ position: 'absolute', inset: 0, cursor: 'crosshair', touchAction: 'none' }}
      />
      <HandleLayer port={port}>
        {drawn && <GuideLine d={ellipsePath(port, drawn, { ...drawn, turn: 0 }, 1)} />}
        {!drag && effect && ellipse && (
          <EllipseHandles
            port={port}
            list={{ owner: effect.id, list: 'where' }}
            mask={ellipse}
            middle={(centre) => <DialRing port={port} at={centre} effect={effect} />}
          />
        )}
      </HandleLayer>
      <ToolHint
        text={
          ellipse ? 'Pull the ring: up brighter, sideways warmer. A drag elsewhere makes the next.' : 'Drag across what is to be corrected.'
        }
      />
    </>
  )
}

interface DialRingProps {
  readonly port: ViewPort
  /** Photo px. */
  readonly at: Point
  readonly effect: Effect
}

let pulls = 0

/** A ring whose drag turns two controls of an effect at once, and says their numbers; arrow keys do the same. */
function DialRing({ port, at, effect }: DialRingProps) {
  const grip = useRef<{ readonly x: number; readonly y: number; readonly across: number; readonly up: number; readonly gesture: string }>(
    undefined,
  )
  const [held, setHeld] = useState(false)
  const dials = pulled[effect.kind]
  if (!dials) return null
  const { x, y } = screenPoint(port, at)
  const [across, up] = [valueOf(effect, dials.across), valueOf(effect, dials.up)]
  const turn = (toAcross: number, toUp: number, gesture: string): void => {
    changeEffect(
      effect.id,
      'Pull the correction',
      ({ controls }) => {
        const set = controls as Record<'pattern' | 'shape', Record<string, unknown>>
        set[dials.across.step][dials.across.name] = toAcross
        set[dials.up.step][dials.up.name] = toUp
      },
      `${effect.id} ${gesture}`,
    )
  }
  const words = `${dials.up.inWords(up)}, ${dials.across.inWords(across)}`
  const letGo = () => {
    grip.current = undefined
    setHeld(false)
  }
  return (
    <g>
      <g
        className="handle"
        role="button"
        tabIndex={0}
        aria-label={`Strength of the correction: ${words}. Arrow keys change it.`}
        transform={`translate(${x} ${y})`}
        onPointerDown={(event) => {
          if (event.button !== 0) return
          event.stopPropagation()
          event.currentTarget.setPointerCapture(event.pointerId)
          grip.current = { x: event.clientX, y: event.clientY, across, up, gesture: `pull ${pulls++}` }
          setHeld(true)
        }}
        onPointerMove={(event) => {
          const from = grip.current
          if (!from) return
          turn(
            pulledTo(dials.across, from.across, event.clientX - from.x),
            pulledTo(dials.up, from.up, from.y - event.clientY),
            from.gesture,
          )
        }}
        onPointerUp={letGo}
        onPointerCancel={letGo}
        onKeyDown={(event) => {
          const by = arrows[event.key]
          if (!by) return
          event.preventDefault()
          event.stopPropagation()
          const [a, u] = [across + by.x * dials.across.to, up + by.y * dials.up.to]
          turn(pulledTo(dials.across, a, 0), pulledTo(dials.up, u, 0), 'pull keys')
        }}
      >
        <circle r={20} fill="transparent" />
        <circle r={11} fill="none" stroke={ink.ink} strokeOpacity={0.6} strokeWidth={5} />
        <circle r={11} fill="none" stroke={ink.white} strokeWidth={2.5} />
        <circle r={2.5} fill={ink.white} stroke={ink.ink} strokeWidth={1} />
      </g>
      {held && <Caption port={port} at={at} text={words} />}
    </g>
  )
}

const arrows: Record<string, Point | undefined> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: 1 },
  ArrowDown: { x: 0, y: -1 },
}
