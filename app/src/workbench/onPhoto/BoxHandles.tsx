import { halvesOf, movedBy, pulledAbout, turnedAbout, type PatternBox, type Placed } from '@welkinar/core'
import { useRef, useState } from 'react'
import type { ViewPort } from './viewPort'
import { angleOf, atAngle, pathThrough, type Point } from './geometry'
import { GuideLine, Handle } from './Handle'

interface BoxHandlesProps {
  readonly port: ViewPort
  /** What is moved, as it is read out. */
  readonly name: string
  readonly placed: Placed
  /** What cannot be done to it. */
  readonly lacks?: PatternBox['lacks']
  onChange(label: string, placed: Placed, gesture?: string): void
}

/** A drag of one handle, with what was there when it began. */
interface Grip {
  readonly gesture: string | undefined
  readonly from: Point
  readonly placed: Placed
  readonly middle: Point
}

/** Css px: smaller than this the handles of a box would lie over one another, and larger it would leave the view. */
const LEAST = 36
const MOST = 320
/** Nothing is pulled to less than this part of what it was. */
const LEAST_PULL = 0.02

/**
 * A box about a pattern that goes on without end: its middle moves the pattern, a corner enlarges it, its sides make it longer or wider, and what stands out of it turns it. Where the
 * box lies is of no account to the pattern; it begins in the middle of the view.
 */
export function BoxHandles({ port, name, placed, lacks = [], onChange }: BoxHandlesProps) {
  const [middle, setMiddle] = useState<Point>({ x: port.centreX, y: port.centreY })
  const grip = useRef<Grip>(undefined)
  /** How all was when a drag began: each of its moves is taken from there, so that nothing adds up. */
  const start = (from: Point, gesture: string | undefined): Grip => {
    const now = { gesture, from, placed, middle }
    if (!gesture || gesture.startsWith('keys')) return now
    if (grip.current?.gesture !== gesture) grip.current = now
    return grip.current
  }
  const { along, across } = shown(halvesOf(placed), port.zoom)
  const axis = placed.turn
  const at = (u: number, v: number): Point => atAngle(atAngle(middle, u, axis), v, axis + 90)
  const corners = [at(-along, -across), at(along, -across), at(along, across), at(-along, across)]
  const [side, edge, corner, arm] = [at(along, 0), at(0, -across), at(along, across), at(0, across + ARM / port.zoom)]
  const pull = (label: string, handle: Point, to: Point, gesture: string | undefined, alongToo: boolean, acrossToo: boolean) => {
    const { from, placed: before, middle: about } = start(handle, gesture)
    const [was, is] = [within(from, about, before.turn), within(to, about, before.turn)]
    const factor = (a: number, b: number): number => Math.max(LEAST_PULL, Math.abs(b) / Math.max(1e-6, Math.abs(a)))
    const both = factor(Math.hypot(was.u, was.v), Math.hypot(is.u, is.v))
    const [longer, wider] = alongToo && acrossToo ? [both, both] : [alongToo ? factor(was.u, is.u) : 1, acrossToo ? factor(was.v, is.v) : 1]
    onChange(label, pulledAbout(before, about, longer, wider), gesture)
  }
  return (
    <>
      <GuideLine dashed d={`${pathThrough(port, corners)}Z`} />
      {!lacks.includes('turn') && <GuideLine d={pathThrough(port, [at(0, across), arm])} />}
      <Handle
        port={port}
        at={middle}
        label={`Move ${name}`}
        onMove={(to, gesture) => {
          const { from, placed: before } = start(middle, gesture)
          onChange(`Move ${name}`, movedBy(before, { x: to.x - from.x, y: to.y - from.y }), gesture)
          setMiddle(to)
        }}
      />
      <Handle
        port={port}
        at={corner}
        look="side"
        label={`Size of ${name}`}
        onMove={(to, gesture) => pull(`Size of ${name}`, corner, to, gesture, true, true)}
      />
      {!lacks.includes('stretch') && (
        <>
          <Handle
            port={port}
            at={side}
            look="side"
            label={`Length of ${name}`}
            onMove={(to, gesture) => pull(`Length of ${name}`, side, to, gesture, true, false)}
          />
          <Handle
            port={port}
            at={edge}
            look="side"
            label={`Width of ${name}`}
            onMove={(to, gesture) => pull(`Width of ${name}`, edge, to, gesture, false, true)}
          />
        </>
      )}
      {!lacks.includes('turn') && (
        <Handle
          port={port}
          at={arm}
          look="curve"
          label={`Turn ${name}`}
          onMove={(to, gesture) => {
            const { from, placed: before } = start(arm, gesture)
            onChange(`Turn ${name}`, turnedAbout(before, middle, Math.round(angleOf(middle, to) - angleOf(middle, from))), gesture)
          }}
        />
      )}
    </>
  )
}

/** Css px that the handle which turns stands out. */
const ARM = 34

/** Halves that can be gripped at this zoom, in the same proportion as far as that goes. */
function shown({ along, across }: ReturnType<typeof halvesOf>, zoom: number): ReturnType<typeof halvesOf> {
  const k = Math.min(1, MOST / zoom / Math.max(along, across))
  const [least, most] = [LEAST / zoom, MOST / zoom]
  const fitted = (half: number): number => Math.min(most, Math.max(least, k * half))
  return { along: fitted(along), across: fitted(across) }
}

/** A place as seen from the middle of the box: along its turn, and across it. */
function within(place: Point, middle: Point, turn: number): { readonly u: number; readonly v: number } {
  const radians = (turn * Math.PI) / 180
  const [dx, dy] = [place.x - middle.x, place.y - middle.y]
  return { u: dx * Math.cos(radians) - dy * Math.sin(radians), v: -(dx * Math.sin(radians) + dy * Math.cos(radians)) }
}
