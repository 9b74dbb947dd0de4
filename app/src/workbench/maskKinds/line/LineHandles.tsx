import { lineEnds, noMarks, type LineMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import { angleOf, atAngle, pathThrough, type Point } from '../../onPhoto/geometry'
import { GuideLine, Handle } from '../../onPhoto/Handle'
import { withinLimits, type MaskHandleProps } from '../maskInterface'
import { ink } from '../../../theme'
import { useSource } from '../../../scene/openSceneContext'

/** Css px that the handle of the whole stands beside the middle where something else lies there. */
const ASIDE = 44

/** The two ends of the fall, and the lines that it falls between. */
export function LineHandles({ port, list, mask, aside = false }: MaskHandleProps<LineMask>) {
  const source = useSource()
  const { x, y, toX, toY } = lineEnds(mask, source.marks ?? noMarks, source.photo)
  const [from, to] = [
    { x, y },
    { x: toX, y: toY },
  ]
  const change = (part: Partial<LineMask>, gesture?: string) =>
    changeMask(
      list,
      mask,
      'Place of the mask',
      (target) => void Object.assign(target, withinLimits(mask.kind, { x, y, toX, toY, follows: null, ...part })),
      gesture,
    )
  const across = angleOf(from, to) + 90
  const long = (port.width + port.height) / port.zoom
  const lineAt = (at: Point) => pathThrough(port, [atAngle(at, long, across), atAngle(at, -long, across)])
  const middle = { x: (x + toX) / 2, y: (y + toY) / 2 }
  const grip = aside ? atAngle(middle, ASIDE / port.zoom, across) : middle
  return (
    <>
      <GuideLine d={lineAt(from)} />
      <GuideLine d={lineAt(to)} dashed />
      <GuideLine d={pathThrough(port, [from, to])} />
      <Handle
        port={port}
        at={grip}
        label="Place of the line"
        look="side"
        onMove={(at, gesture) => {
          const [dx, dy] = [at.x - grip.x, at.y - grip.y]
          change({ x: x + dx, y: y + dy, toX: toX + dx, toY: toY + dy }, gesture)
        }}
      />
      <Handle
        port={port}
        at={to}
        label="Where the mask is shut"
        colour={ink.ink}
        onMove={(at, gesture) => change({ toX: at.x, toY: at.y }, gesture)}
      />
      <Handle port={port} at={from} label="Where the mask is open" onMove={(at, gesture) => change({ x: at.x, y: at.y }, gesture)} />
    </>
  )
}
