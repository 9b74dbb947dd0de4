import { bytesFrom, noMarks, type LevelMark, type SmallCodes } from '@welkinar/core'
import { contours } from 'd3-contour'
import { useMemo } from 'react'
import { toScreen, type ViewPort } from '../../onPhoto/viewPort'
import { atAngle, pathThrough, type Point } from '../../onPhoto/geometry'
import { Caption, GuideLine } from '../../onPhoto/Handle'
import { useSource } from '../../../scene/openSceneContext'

interface ReadMarksProps {
  readonly port: ViewPort
}

/** Half of what a code of the sky can be. */
const EDGE = 128
/** Css px. */
const LIGHT_RADIUS = 12

/** What was read from the photo, on the photo, as far as no mark of the same kind goes before it. */
export function ReadMarks({ port }: ReadMarksProps) {
  const source = useSource()
  const { photo, marks = noMarks } = source
  const { reading } = marks
  const sky = reading?.sky
  const edges = useMemo(() => (sky ? edgesOf(sky) : []), [sky])
  if (!reading) return null
  const light = marks.lights.length > 0 ? null : reading.light
  const horizon = marks.horizon ? null : reading.horizon
  const middle = horizon && { x: photo.width / 2, y: horizon.y }
  const water = marks.waterline ? null : reading.water
  const isOneLine = water?.y === horizon?.y
  const shown = light && { x: Math.max(0, Math.min(photo.width, light.x)), y: Math.max(0, Math.min(photo.height, light.y)) }
  const beyond = light && shown && (shown.x !== light.x || shown.y !== light.y)
  return (
    <>
      {sky &&
        edges.map((edge, index) => (
          <GuideLine
            key={index}
            dashed
            d={pathThrough(
              port,
              edge.map(({ x, y }) => ({ x: (x * photo.width) / sky.width, y: (y * photo.height) / sky.height })),
            )}
          />
        ))}
      {horizon && middle && (
        <>
          <GuideLine dashed d={lineAcross(port, photo.width, horizon)} />
          <Caption port={port} at={middle} text={water && isOneLine ? 'Horizon and water, as read' : 'Horizon, as read'} />
        </>
      )}
      {water && !isOneLine && (
        <>
          <GuideLine dashed d={lineAcross(port, photo.width, water)} />
          <Caption port={port} at={{ x: photo.width / 2, y: water.y }} text="Water, as read" />
        </>
      )}
      {shown && (
        <>
          <GuideLine dashed d={ringPath(toScreen(port, shown.x, shown.y))} />
          <Caption port={port} at={shown} text={beyond ? 'Light beyond, as read' : 'Light, as read'} />
        </>
      )}
    </>
  )
}

function lineAcross(port: ViewPort, width: number, { y, turn }: LevelMark): string {
  const middle = { x: width / 2, y }
  return pathThrough(port, [atAngle(middle, -width, turn), atAngle(middle, width, turn)])
}

/** The edges of what is sky, in pixels of its small picture, without those along the frame. */
function edgesOf({ width, height, codes }: SmallCodes): Point[][] {
  const [sky] = contours().size([width, height]).thresholds([EDGE])([...bytesFrom(codes)])
  const rings = (sky?.coordinates ?? []).flat().map((ring) => ring.map(([x = 0, y = 0]) => ({ x, y })))
  const isInside = ({ x, y }: Point): boolean => x > 0.5 && y > 0.5 && x < width - 0.5 && y < height - 0.5
  return rings.flatMap((ring) => {
    const lines: Point[][] = [[]]
    for (const point of ring) {
      if (isInside(point)) lines.at(-1)?.push(point)
      else if (lines.at(-1)?.length) lines.push([])
    }
    return lines.filter((line) => line.length > 1)
  })
}

function ringPath({ x, y }: Point): string {
  return `M${x - LIGHT_RADIUS} ${y}a${LIGHT_RADIUS} ${LIGHT_RADIUS} 0 1 0 ${2 * LIGHT_RADIUS} 0a${LIGHT_RADIUS} ${LIGHT_RADIUS} 0 1 0 ${-2 * LIGHT_RADIUS} 0Z`
}
