import {
  bandLine,
  ellipseCentre,
  lineEnds,
  noMarks,
  type BandMask,
  type EllipseMask,
  type FrameMask,
  type LineMask,
  type PictureSource,
} from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import { toScreen, type ViewPort } from '../viewPort'
import { angleOf, atAngle, screenPoint, type Point } from './geometry'
import { GuideLine, Handle } from './Handle'

interface ShapeProps<M> {
  readonly port: ViewPort
  readonly source: PictureSource
  readonly ownerId: string
  readonly mask: M
}

const LEAST_RADIUS = 1
const TURN_HANDLE_AWAY = 34

/** Centre, two radii and the turn of an ellipse. Moving the centre takes it off the mark that it followed. */
export function EllipseHandles({ port, source, ownerId, mask }: ShapeProps<EllipseMask>) {
  const centre = ellipseCentre(mask, source.marks ?? noMarks)
  const change = (label: string, part: Partial<EllipseMask>, gesture?: string) =>
    changeMask(ownerId, mask, label, (target) => void Object.assign(target, part), gesture)
  const inner = 1 - mask.softness / 100
  const right = atAngle(centre, mask.radiusX, mask.turn)
  const top = atAngle(centre, mask.radiusY, mask.turn + 90)
  const far = atAngle(centre, mask.radiusX + TURN_HANDLE_AWAY / port.zoom, mask.turn)
  const radius = (to: Point) => Math.max(LEAST_RADIUS, Math.hypot(to.x - centre.x, to.y - centre.y))
  return (
    <>
      <GuideLine d={ellipsePath(port, centre, mask, 1)} />
      {inner > 0.02 && inner < 0.98 && <GuideLine d={ellipsePath(port, centre, mask, inner)} dashed />}
      <GuideLine d={pathThrough(port, [right, far])} />
      <Handle
        port={port}
        at={far}
        label="Turn of the ellipse"
        look="curve"
        onMove={(to, gesture) => change('Turn of the mask', { turn: Math.round(10 * angleOf(centre, to)) / 10 }, gesture)}
      />
      <Handle
        port={port}
        at={right}
        label="Width of the ellipse"
        look="side"
        onMove={(to, gesture) => change('Width of the mask', { radiusX: radius(to) }, gesture)}
      />
      <Handle
        port={port}
        at={top}
        label="Height of the ellipse"
        look="side"
        onMove={(to, gesture) => change('Height of the mask', { radiusY: radius(to) }, gesture)}
      />
      <Handle
        port={port}
        at={centre}
        label="Centre of the ellipse"
        onMove={(to, gesture) => change('Place of the mask', { ...to, follows: null }, gesture)}
      />
    </>
  )
}

/** The two ends of the fall, and the lines that it falls between. */
export function LineHandles({ port, source, ownerId, mask }: ShapeProps<LineMask>) {
  const { x, y, toX, toY } = lineEnds(mask, source.marks ?? noMarks, source.photo)
  const [from, to] = [
    { x, y },
    { x: toX, y: toY },
  ]
  const change = (part: Partial<LineMask>, gesture?: string) =>
    changeMask(ownerId, mask, 'Place of the mask', (target) => void Object.assign(target, { x, y, toX, toY, follows: null }, part), gesture)
  const across = angleOf(from, to) + 90
  const long = (port.width + port.height) / port.zoom
  const lineAt = (at: Point) => pathThrough(port, [atAngle(at, long, across), atAngle(at, -long, across)])
  const middle = { x: (x + toX) / 2, y: (y + toY) / 2 }
  return (
    <>
      <GuideLine d={lineAt(from)} />
      <GuideLine d={lineAt(to)} dashed />
      <GuideLine d={pathThrough(port, [from, to])} />
      <Handle
        port={port}
        at={middle}
        label="Place of the line"
        look="side"
        onMove={(at, gesture) => {
          const [dx, dy] = [at.x - middle.x, at.y - middle.y]
          change({ x: x + dx, y: y + dy, toX: toX + dx, toY: toY + dy }, gesture)
        }}
      />
      <Handle
        port={port}
        at={to}
        label="Where the mask is shut"
        colour="#1f2123"
        onMove={(at, gesture) => change({ toX: at.x, toY: at.y }, gesture)}
      />
      <Handle port={port} at={from} label="Where the mask is open" onMove={(at, gesture) => change({ x: at.x, y: at.y }, gesture)} />
    </>
  )
}

/** Middle, turn, width and softness of a band. */
export function BandHandles({ port, source, ownerId, mask }: ShapeProps<BandMask>) {
  const { turn, ...centre } = bandLine(mask, source.marks ?? noMarks, source.photo)
  const change = (label: string, part: Partial<BandMask>, gesture?: string) =>
    changeMask(ownerId, mask, label, (target) => void Object.assign(target, part), gesture)
  const long = (port.width + port.height) / port.zoom
  const lineAt = (away: number) => {
    const at = atAngle(centre, away, turn + 90)
    return pathThrough(port, [atAngle(at, long, turn), atAngle(at, -long, turn)])
  }
  const half = mask.width / 2
  const away = (to: Point) => {
    const radians = (turn * Math.PI) / 180
    return Math.max(0, -((to.x - centre.x) * Math.sin(radians)) - (to.y - centre.y) * Math.cos(radians))
  }
  const along = 60 / port.zoom
  return (
    <>
      {[half, -half].map((at) => (
        <GuideLine key={at} d={lineAt(at)} />
      ))}
      {mask.softness > 0 && [half + mask.softness, -half - mask.softness].map((at) => <GuideLine key={at} d={lineAt(at)} dashed />)}
      <Handle
        port={port}
        at={atAngle(centre, 120 / port.zoom, turn)}
        label="Turn of the band"
        look="curve"
        onMove={(to, gesture) =>
          change('Turn of the mask', { ...centre, turn: Math.round(10 * angleOf(centre, to)) / 10, follows: null }, gesture)
        }
      />
      <Handle
        port={port}
        at={atAngle(atAngle(centre, half + mask.softness, turn + 90), along, turn)}
        label="Softness of the band"
        look="side"
        onMove={(to, gesture) => change('Softness of the mask', { softness: Math.max(0, away(to) - half) }, gesture)}
      />
      <Handle
        port={port}
        at={atAngle(centre, half, turn + 90)}
        label="Width of the band"
        look="side"
        onMove={(to, gesture) => change('Width of the mask', { width: 2 * away(to) }, gesture)}
      />
      <Handle
        port={port}
        at={centre}
        label="Middle of the band"
        onMove={(to, gesture) => change('Place of the mask', { ...to, turn, follows: null }, gesture)}
      />
    </>
  )
}

/** Inset and softness from the top edge of the frame. */
export function FrameHandles({ port, source, ownerId, mask }: ShapeProps<FrameMask>) {
  const { width, height } = source.photo
  const change = (label: string, part: Partial<FrameMask>, gesture?: string) =>
    changeMask(ownerId, mask, label, (target) => void Object.assign(target, part), gesture)
  const rect = (inset: number) =>
    `${pathThrough(port, [
      { x: inset, y: inset },
      { x: width - inset, y: inset },
      { x: width - inset, y: height - inset },
      { x: inset, y: height - inset },
    ])}Z`
  const inner = mask.inset + mask.softness
  return (
    <>
      <GuideLine d={rect(mask.inset)} dashed />
      <GuideLine d={rect(inner)} />
      <Handle
        port={port}
        at={{ x: width / 2 + 40 / port.zoom, y: inner }}
        label="Softness of the frame edge"
        look="side"
        onMove={(to, gesture) => change('Softness of the mask', { softness: Math.max(0, to.y - mask.inset) }, gesture)}
      />
      <Handle
        port={port}
        at={{ x: width / 2, y: mask.inset }}
        label="Inset of the frame edge"
        onMove={(to, gesture) => change('Inset of the mask', { inset: Math.max(0, to.y) }, gesture)}
      />
    </>
  )
}

export function pathThrough(port: ViewPort, points: readonly Point[]): string {
  return `M${points
    .map((point) => screenPoint(port, point))
    .map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`)
    .join('L')}`
}

function ellipsePath(port: ViewPort, centre: Point, { radiusX, radiusY, turn }: EllipseMask, part: number): string {
  const { x, y } = toScreen(port, centre.x, centre.y)
  const [rx, ry] = [radiusX * part * port.zoom, radiusY * part * port.zoom]
  const [a, b] = [atAngle({ x, y }, rx, turn), atAngle({ x, y }, -rx, turn)]
  return `M${a.x} ${a.y}A${rx} ${ry} ${-turn} 0 0 ${b.x} ${b.y}A${rx} ${ry} ${-turn} 0 0 ${a.x} ${a.y}Z`
}
