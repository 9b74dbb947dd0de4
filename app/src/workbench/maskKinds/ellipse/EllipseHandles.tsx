import { ellipseCentre, noMarks, type EllipseMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import { toScreen, type ViewPort } from '../../onPhoto/viewPort'
import { angleOf, atAngle, pathThrough, type Point } from '../../onPhoto/geometry'
import { GuideLine, Handle } from '../../onPhoto/Handle'
import { withinLimits, type MaskHandleProps } from '../maskInterface'
import { useSource } from '../../../scene/openSceneContext'

const TURN_HANDLE_AWAY = 34

/** Centre, two radii and the turn of an ellipse. Moving the centre takes it off the mark that it followed; aside it is at the left rim. */
export function EllipseHandles({ port, list, mask, aside }: MaskHandleProps<EllipseMask>) {
  const source = useSource()
  const centre = ellipseCentre(mask, source.marks ?? noMarks)
  const change = (label: string, part: Partial<EllipseMask>, gesture?: string) =>
    changeMask(list, mask, label, (target) => void Object.assign(target, withinLimits(mask.kind, part)), gesture)
  const inner = 1 - mask.softness / 100
  const right = atAngle(centre, mask.radiusX, mask.turn)
  const top = atAngle(centre, mask.radiusY, mask.turn + 90)
  const far = atAngle(centre, mask.radiusX + TURN_HANDLE_AWAY / port.zoom, mask.turn)
  const left = atAngle(centre, -mask.radiusX, mask.turn)
  const centreFor = (to: Point): Point => (aside ? { x: to.x + centre.x - left.x, y: to.y + centre.y - left.y } : to)
  const radius = (to: Point) => Math.hypot(to.x - centre.x, to.y - centre.y)
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
        at={aside ? left : centre}
        label="Centre of the ellipse"
        onMove={(to, gesture) => change('Place of the mask', { ...centreFor(to), follows: null }, gesture)}
      />
    </>
  )
}

/** Rim of an ellipse on the screen, or of a part of it. */
export function ellipsePath(
  port: ViewPort,
  centre: Point,
  { radiusX, radiusY, turn }: Pick<EllipseMask, 'radiusX' | 'radiusY' | 'turn'>,
  part: number,
): string {
  const { x, y } = toScreen(port, centre.x, centre.y)
  const [rx, ry] = [radiusX * part * port.zoom, radiusY * part * port.zoom]
  const [a, b] = [atAngle({ x, y }, rx, turn), atAngle({ x, y }, -rx, turn)]
  return `M${a.x} ${a.y}A${rx} ${ry} ${-turn} 0 0 ${b.x} ${b.y}A${rx} ${ry} ${-turn} 0 0 ${a.x} ${a.y}Z`
}
