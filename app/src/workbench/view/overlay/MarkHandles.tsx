import { noMarks, type LevelMark, type LightMark } from '@welkinar/core'
import { useScene } from '../../../scene/sceneStore'
import { toScreen, type ViewPort } from '../../onPhoto/viewPort'
import { angleOf, atAngle, pathThrough, screenPoint, type Point } from '../../onPhoto/geometry'
import { Caption, GuideLine, Handle } from '../../onPhoto/Handle'
import { editRegion } from '../../actions/regions'
import { OutlineHandles } from '../../onPhoto/OutlineHandles'
import { useSource } from '../../../scene/openSceneContext'

interface MarkHandlesProps {
  readonly port: ViewPort
}

/** The marks of the scene on the photo: lights with their reach, horizon, waterline, focal point. */
export function MarkHandles({ port }: MarkHandlesProps) {
  const source = useSource()
  const { lights, horizon, waterline, focal, regions } = source.marks ?? noMarks
  const { change } = useScene.getState()
  const moveLight = (id: string) => (to: Point, gesture?: string) =>
    change(
      'Move a light',
      ({ marks }) => void Object.assign(marks.lights.find((light) => light.id === id) ?? {}, to),
      gesture && `${id} ${gesture}`,
    )
  return (
    <>
      {regions.map((region) => (
        <g key={region.id}>
          <OutlineHandles port={port} corners={region.corners} name={region.name} onEdit={editRegion(region.id)} />
          <Caption port={port} at={region.corners[0] ?? { x: 0, y: 0 }} text={`${region.name}, ${region.distance} m`} />
        </g>
      ))}
      {[horizon, waterline].map((level, index) => level && <LevelLine key={index} port={port} level={level} dashed={index === 1} />)}
      {horizon && <LevelHandles port={port} mark="horizon" />}
      {waterline && <LevelHandles port={port} mark="waterline" />}
      {focal && (
        <>
          <GuideLine d={crossPath(port, focal)} />
          <Handle
            port={port}
            at={focal}
            label="Centre of interest"
            onMove={(to, gesture) => change('Move the centre of interest', ({ marks }) => void (marks.focal = to), gesture)}
          />
        </>
      )}
      {lights.map((light) => (
        <g key={light.id}>
          <GuideLine d={circlePath(port, light)} dashed />
          <Handle port={port} at={light} label={light.name} colour={light.colour} onMove={moveLight(light.id)} />
          <Caption port={port} at={light} text={light.name} />
        </g>
      ))}
    </>
  )
}

/** The line itself, beneath all handles and captions. */
function LevelLine({ port, level, dashed }: MarkHandlesProps & { readonly level: LevelMark; readonly dashed: boolean }) {
  const source = useSource()
  const { width } = source.photo
  const middle = { x: width / 2, y: level.y }
  return <GuideLine d={pathThrough(port, [atAngle(middle, -width, level.turn), atAngle(middle, width, level.turn)])} dashed={dashed} />
}

function LevelHandles({ port, mark }: MarkHandlesProps & { readonly mark: 'horizon' | 'waterline' }) {
  const source = useSource()
  const level = source.marks?.[mark]
  const { change } = useScene.getState()
  if (!level) return null
  const { width } = source.photo
  const middle = { x: width / 2, y: level.y }
  const end = atAngle(middle, 0.38 * width, level.turn)
  // Horizon and waterline are often one: their handles lie apart.
  const grip = mark === 'horizon' ? middle : atAngle(middle, -0.25 * width, level.turn)
  const label = mark === 'horizon' ? 'Horizon' : 'Waterline'
  return (
    <>
      <Handle
        port={port}
        at={end}
        look="side"
        label={`Slope of the ${mark}`}
        onMove={(to, gesture) =>
          change(
            `Slope of the ${mark}`,
            ({ marks }) => void (marks[mark] = { y: level.y, turn: Math.round(10 * angleOf(middle, to)) / 10 }),
            gesture,
          )
        }
      />
      <Handle
        port={port}
        at={grip}
        label={label}
        onMove={(to, gesture) =>
          change(`Move the ${mark}`, ({ marks }) => void (marks[mark] = { y: level.y + to.y - grip.y, turn: level.turn }), gesture)
        }
      />
      <Caption port={port} at={grip} text={label} />
    </>
  )
}

function circlePath(port: ViewPort, { x, y, radius }: LightMark): string {
  const at = toScreen(port, x, y)
  const r = Math.max(10, radius * port.zoom)
  return `M${at.x - r} ${at.y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`
}

function crossPath(port: ViewPort, at: Point): string {
  const { x, y } = screenPoint(port, at)
  return `M${x - 22} ${y}H${x + 22}M${x} ${y - 22}V${y + 22}`
}
