import { bytesFrom, noMarks, type PictureSource, type SmallCodes } from '@welkinar/core'
import { contours } from 'd3-contour'
import { useMemo } from 'react'
import { toScreen, type ViewPort } from '../viewPort'
import { atAngle, pathThrough, type Point } from './geometry'
import { Caption, GuideLine } from './Handle'

interface ReadMarksProps {
  readonly port: ViewPort
  readonly source: PictureSource
}

/** Half of what a code of the sky can be. */
const EDGE = 128
/** Css px. */
const LIGHT_RADIUS = 12

/** What was read from the photo, on the photo, as far as no mark of the same kind goes before it. */
export function ReadMarks({ port, source }: ReadMarksProps) {
  const { photo, marks = noMarks } = source
  const { reading } = marks
  const sky = reading?.sky
  const edges = useMemo(() => (sky ? edgesOf(sky) : []), [sky])
  if (!reading) return null
  const { light } = reading
  const horizon = marks.horizon ? null : reading.horizon
  const middle = horizon && { x: photo.width / 2, y: horizon.y }
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
          <GuideLine
            dashed
            d={pathThrough(port, [atAngle(middle, -photo.width, horizon.turn), atAngle(middle, photo.width, horizon.turn)])}
          />
          <Caption port={port} at={middle} text="Horizon, as read" />
        </>
      )}
      {light && (
        <>
          <GuideLine dashed d={ringPath(toScreen(port, light.x, light.y))} />
          <Caption port={port} at={light} text="Light, as read" />
        </>
      )}
    </>
  )
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
