import type { Effect } from '@welkinar/core'
import { useRef, useState, type KeyboardEvent, type PointerEvent, type Ref } from 'react'
import { useSource } from '../../../../scene/openSceneContext'
import { changeEffect } from '../../../../scene/sceneStore'
import { ink } from '../../../../theme'
import { pulledInWords, pulledOf, pulledTo, steppedTo, turnTo, valueAt } from '../../../actions/corrections/pulls'
import { screenPoint, type Point } from '../../../onPhoto/geometry'
import { Caption } from '../../../onPhoto/Handle'
import type { ViewPort } from '../../../onPhoto/viewPort'

interface DialRingProps {
  readonly port: ViewPort
  /** Photo px. */
  readonly at: Point
  readonly effect: Effect
  readonly ref: Ref<SVGGElement>
}

interface Grip {
  readonly x: number
  readonly y: number
  readonly upDown: number
  readonly sideways: number
  readonly gesture: string
}

let pulls = 0

/** A ring whose drag turns two controls of an effect at once, and says their numbers; arrow keys do the same. */
export function DialRing({ port, at, effect, ref }: DialRingProps) {
  const grip = useRef<Grip>(undefined)
  const [held, setHeld] = useState(false)
  const { photo } = useSource()
  const { upDown, sideways } = pulledOf(effect, photo)
  const { x, y } = screenPoint(port, at)
  const up = valueAt(effect, upDown.path)
  const across = sideways ? valueAt(effect, sideways.path) : 0
  const turn = (toUp: number, toAcross: number, gesture: string): void =>
    changeEffect(
      effect.id,
      'Pull the correction',
      (target) => {
        turnTo(target, upDown, toUp)
        if (sideways) turnTo(target, sideways, toAcross)
      },
      `${effect.id} ${gesture}`,
    )
  const words = [pulledInWords(upDown, up), ...(sideways ? [pulledInWords(sideways, across)] : [])].join(', ')
  const onPointerMove = (event: PointerEvent) => {
    const from = grip.current
    if (!from) return
    const toAcross = sideways ? pulledTo(sideways, from.sideways, event.clientX - from.x) : 0
    turn(pulledTo(upDown, from.upDown, from.y - event.clientY), toAcross, from.gesture)
  }
  const letGo = () => {
    grip.current = undefined
    setHeld(false)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const by = arrows[event.key]
    if (!by) return
    event.preventDefault()
    event.stopPropagation()
    const toAcross = sideways ? steppedTo(sideways, across + by.x * sideways.control.step) : 0
    turn(steppedTo(upDown, up + by.y * upDown.control.step), toAcross, 'pull keys')
  }
  return (
    <g>
      <g
        ref={ref}
        className="handle"
        role="button"
        tabIndex={0}
        aria-label={`Strength of the correction: ${words}. Arrow keys change it.`}
        transform={`translate(${x} ${y})`}
        onPointerDown={(event) => {
          if (event.button !== 0) return
          event.stopPropagation()
          event.currentTarget.setPointerCapture(event.pointerId)
          grip.current = { x: event.clientX, y: event.clientY, upDown: up, sideways: across, gesture: `pull ${pulls++}` }
          setHeld(true)
        }}
        onPointerMove={onPointerMove}
        onPointerUp={letGo}
        onPointerCancel={letGo}
        onKeyDown={onKeyDown}
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
