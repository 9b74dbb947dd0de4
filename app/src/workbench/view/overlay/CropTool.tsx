import { middleOf, photoPlaceOf, towards, turnedPlaceOf, type Crop, type Frame, type Size } from '@welkinar/core'
import { useRef, type PointerEvent } from 'react'
import { useScene } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import { cropOf, setCrop } from '../../actions/cropping'
import { toScreen, type ViewPort } from '../../onPhoto/viewPort'
import { pathThrough, pointerPlace, toPhoto, type Point } from '../../onPhoto/geometry'
import { GuideLine, Handle } from '../../onPhoto/Handle'
import { useSource } from '../../../scene/openSceneContext'

interface CropToolProps {
  readonly port: ViewPort
  /** All of the photo, turned. */
  readonly frame: Frame
}

/** Photo px that a crop is long at least. */
const LEAST = 16
let drags = 0

const corners = [
  { name: 'Upper left corner', i: 0, j: 0 },
  { name: 'Upper right corner', i: 1, j: 0 },
  { name: 'Lower left corner', i: 0, j: 1 },
  { name: 'Lower right corner', i: 1, j: 1 },
] as const

/** The crop over the whole photo: pulled at its corners, moved in its middle. What is cut off stays in sight, darker. */
export function CropTool({ port, frame }: CropToolProps) {
  const source = useSource()
  const shape = useScene((state) => state.cropShape)
  const grip = useRef<{ readonly from: Point; readonly crop: Crop; readonly gesture: string }>(undefined)
  const crop = cropOf(source)
  const { x, y, width, height } = onWhole(frame, crop)
  const [from, to] = [toScreen(port, x, y), toScreen(port, x + width, y + height)]
  const change = (next: Crop, gesture: string | undefined): void =>
    setCrop('Crop', sliding(crop, fromWhole(frame, next), source.photo), source.photo, gesture)
  const place = (event: PointerEvent<SVGElement>): Point =>
    toPhoto(port, pointerPlace(event, event.currentTarget.ownerSVGElement ?? event.currentTarget))
  const onPointerDown = (event: PointerEvent<SVGRectElement>) => {
    if (event.button !== 0) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    grip.current = { from: place(event), crop, gesture: `crop ${drags++}` }
  }
  const onPointerMove = (event: PointerEvent<SVGRectElement>) => {
    if (!grip.current) return
    const at = place(event)
    const began = onWhole(frame, grip.current.crop)
    change({ ...began, x: began.x + at.x - grip.current.from.x, y: began.y + at.y - grip.current.from.y }, grip.current.gesture)
  }
  const edge = { x: from.x, y: from.y, width: to.x - from.x, height: to.y - from.y }
  const wholePhoto = outlineOf(frame, port)
  const third = (part: number): string =>
    `M${edge.x + part * edge.width} ${edge.y}v${edge.height}M${edge.x} ${edge.y + part * edge.height}h${edge.width}`
  return (
    <svg
      width={port.width}
      height={port.height}
      style={{ position: 'absolute', inset: 0, touchAction: 'none' }}
      onDoubleClick={(event) => event.stopPropagation()}
    >
      <path d={`M0 0H${port.width}V${port.height}H0Z${wholePhoto}`} fillRule="evenodd" fill={ink.surround} />
      <path
        d={`${wholePhoto}M${edge.x} ${edge.y}h${edge.width}v${edge.height}h${-edge.width}Z`}
        fillRule="evenodd"
        fill={ink.ink}
        fillOpacity={0.62}
      />
      <rect
        {...edge}
        data-testid="crop"
        fill="transparent"
        style={{ cursor: 'move' }}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={() => (grip.current = undefined)}
        onPointerCancel={() => (grip.current = undefined)}
      />
      <g opacity={0.5}>
        <GuideLine d={third(1 / 3)} />
        <GuideLine d={third(2 / 3)} />
      </g>
      <GuideLine d={`M${edge.x} ${edge.y}h${edge.width}v${edge.height}h${-edge.width}Z`} />
      {corners.map(({ name, i, j }) => (
        <g key={name} className="handle" style={{ cursor: i === j ? 'nwse-resize' : 'nesw-resize' }}>
          <Handle
            port={port}
            at={{ x: x + i * width, y: y + j * height }}
            look="side"
            label={name}
            onMove={(at, gesture) => change(pulled({ x, y, width, height, turn: crop.turn }, i, j, at, shape), gesture)}
          />
        </g>
      ))}
    </svg>
  )
}

/** The border of the photo as it lies on the screen, turned. */
function outlineOf(frame: Frame, port: ViewPort): string {
  const { width, height } = frame
  const corners = [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ]
  return `${pathThrough(
    port,
    corners.map((corner) => turnedPlaceOf(frame, corner)),
  )}Z`
}

/** A crop as a rectangle of the photo turned about its own middle, which stays where it is while the crop changes. */
function onWhole(frame: Frame, crop: Crop): Crop {
  const { x, y } = turnedPlaceOf(frame, middleOf(crop))
  return { ...crop, x: x - crop.width / 2, y: y - crop.height / 2 }
}

function fromWhole(frame: Frame, crop: Crop): Crop {
  const { x, y } = photoPlaceOf(frame, middleOf(crop))
  return { ...crop, x: x - crop.width / 2, y: y - crop.height / 2 }
}

/** As far towards another crop as the photo goes; where it ends in one direction, on in the other. */
function sliding(from: Crop, to: Crop, photo: Size): Crop {
  const near = towards(from, to, photo)
  if (near === to || from.width !== to.width || from.height !== to.height) return near
  const across = towards(near, { ...near, x: to.x }, photo)
  return towards(across, { ...across, y: to.y }, photo)
}

/** A crop with one corner elsewhere; the opposite one stays. */
function pulled({ x, y, width, height, turn }: Crop, i: number, j: number, to: Point, shape: number | undefined): Crop {
  const fixed = { x: x + (1 - i) * width, y: y + (1 - j) * height }
  let wide = Math.max(LEAST, (to.x - fixed.x) * (i ? 1 : -1))
  let high = Math.max(LEAST, (to.y - fixed.y) * (j ? 1 : -1))
  if (shape !== undefined) {
    wide = Math.max(wide, high * shape)
    high = wide / shape
  }
  return { x: i ? fixed.x : fixed.x - wide, y: j ? fixed.y : fixed.y - high, width: wide, height: high, turn }
}
