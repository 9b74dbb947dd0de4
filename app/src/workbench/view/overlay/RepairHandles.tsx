import type { Repair } from '@welkinar/core'
import { useScene } from '../../../scene/sceneStore'
import { changeRepair, removeRepair } from '../../actions/repairs'
import type { ViewPort } from '../../onPhoto/viewPort'
import { screenPoint } from '../../onPhoto/geometry'
import { GuideLine, Handle } from '../../onPhoto/Handle'
import { useSource } from '../../../scene/openSceneContext'

/** The spots that were mended; of the chosen one also how large it is, and where it is mended from. */
export function RepairHandles({ port }: { readonly port: ViewPort }) {
  const source = useSource()
  const chosenId = useScene((state) => state.chosenRepair)
  return source.groundwork?.repairs.map((repair, index) => (
    <g key={repair.id}>
      {repair.id === chosenId && <ChosenRepair port={port} repair={repair} />}
      <Handle
        port={port}
        at={repair}
        label={`Mended spot ${index + 1}`}
        onGrip={(held) => held && useScene.getState().set({ chosenRepair: repair.id })}
        onMove={({ x, y }, gesture) =>
          changeRepair(
            repair.id,
            'Move the spot',
            (one) => Object.assign(one, { x, y, fromX: x + repair.fromX - repair.x, fromY: y + repair.fromY - repair.y }),
            gesture,
          )
        }
        onRemove={() => removeRepair(repair.id)}
      />
    </g>
  ))
}

function ChosenRepair({ port, repair }: { readonly port: ViewPort; readonly repair: Repair }) {
  const { id, x, y, radius, fromX, fromY, keeps } = repair
  const [at, from] = [screenPoint(port, { x, y }), screenPoint(port, { x: fromX, y: fromY })]
  const r = radius * port.zoom
  return (
    <>
      <GuideLine d={circlePath(at, r)} />
      {keeps === 'nothing' && (
        <>
          <GuideLine dashed d={`${circlePath(from, r)}M${from.x} ${from.y}L${at.x} ${at.y}`} />
          <Handle
            port={port}
            at={{ x: fromX, y: fromY }}
            look="side"
            label="Mended from"
            onMove={(to, gesture) =>
              // A whole number of px away, so that what is copied stays as sharp as it is.
              changeRepair(
                id,
                'Mend from elsewhere',
                (one) => Object.assign(one, { fromX: x + Math.round(to.x - x), fromY: y + Math.round(to.y - y) }),
                gesture,
              )
            }
          />
        </>
      )}
      <Handle
        port={port}
        at={{ x: x + radius, y }}
        look="side"
        label="Radius of the spot"
        onMove={(to, gesture) =>
          changeRepair(
            id,
            'Size of the spot',
            (one) => void (one.radius = Math.min(5000, Math.max(0.5, Math.round(2 * Math.hypot(to.x - x, to.y - y)) / 2))),
            gesture,
          )
        }
      />
    </>
  )
}

function circlePath({ x, y }: { readonly x: number; readonly y: number }, r: number): string {
  return `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`
}
