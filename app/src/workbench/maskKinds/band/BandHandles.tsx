import { bandLine, noMarks, type BandMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import { angleOf, atAngle, pathThrough, type Point } from '../../onPhoto/geometry'
import { GuideLine, Handle } from '../../onPhoto/Handle'
import { withinLimits, type MaskHandleProps } from '../maskInterface'
import { useSource } from '../../../scene/openSceneContext'

/** Css px that the handle of the whole stands beside the middle where something else lies there. */
const ASIDE = 44

/** Middle, turn, width and softness of a band. */
export function BandHandles({ port, list, mask, aside = false }: MaskHandleProps<BandMask>) {
  const source = useSource()
  const { turn, ...centre } = bandLine(mask, source.marks ?? noMarks, source.photo)
  const change = (label: string, part: Partial<BandMask>, gesture?: string) =>
    changeMask(list, mask, label, (target) => void Object.assign(target, withinLimits(mask.kind, part)), gesture)
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
  const grip = aside ? atAngle(centre, -ASIDE / port.zoom, turn) : centre
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
        at={grip}
        label="Middle of the band"
        onMove={(to, gesture) =>
          change('Place of the mask', { x: to.x + centre.x - grip.x, y: to.y + centre.y - grip.y, turn, follows: null }, gesture)
        }
      />
    </>
  )
}
