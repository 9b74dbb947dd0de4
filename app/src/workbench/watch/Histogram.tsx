import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { sceneGraph, type PictureSource, type ToneChannel } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useMemo } from 'react'
import { channel, chartFrame, ink } from '../../theme'

interface HistogramProps {
  readonly pool: RenderPool
  readonly source: PictureSource
}

const WIDTH = 180
const HEIGHT = 84
const COLUMNS = 64
const channels: readonly ToneChannel[] = ['encodedLuma', 'red', 'green', 'blue']
/** What each is drawn with; a dash of its own tells them apart too. */
const lines = [
  { colour: channel.red, dash: undefined, name: 'red' },
  { colour: channel.green, dash: '4 2', name: 'green' },
  { colour: channel.blue, dash: '1.5 1.5', name: 'blue' },
] as const

/** How often each tone occurs in the picture: luma as an area, the channels as lines. */
export function Histogram({ pool, source }: HistogramProps) {
  const node = useMemo(() => sceneGraph(source), [source])
  const { data } = useQuery({
    queryKey: ['histogram', node.key, source.photo.id],
    queryFn: ({ signal }) => Promise.all(channels.map((channel) => pool.toneHistogram(node, source.photo, channel, signal))),
    placeholderData: (earlier) => earlier,
    gcTime: 30_000,
  })
  const heights = data?.map(heightsOf)
  // One scale for all, so that they can be compared; the ends, where what is clipped piles up, do not count.
  const most = Math.max(1, ...(heights ?? []).flatMap((one) => one.slice(1, -1)))
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label="Histogram: luma as an area, red, green and blue as lines"
      data-ready={heights !== undefined}
      sx={chartFrame}
    >
      {heights?.[0] && <path d={`M0,${HEIGHT}L${points(heights[0], most)}L${WIDTH},${HEIGHT}Z`} fill={ink.chart} />}
      {heights?.slice(1).map((channel, i) => (
        <path
          key={lines[i]?.name}
          d={`M${points(channel, most)}`}
          fill="none"
          stroke={lines[i]?.colour}
          strokeDasharray={lines[i]?.dash}
          strokeWidth={1.1}
        />
      ))}
    </Box>
  )
}

/** By the square root, so that small numbers of bright pixels are seen too. */
function heightsOf(bins: Uint32Array): number[] {
  const share = bins.length / COLUMNS
  return Array.from({ length: COLUMNS }, (_, i) =>
    Math.sqrt(bins.subarray(i * share, (i + 1) * share).reduce((sum, count) => sum + count, 0)),
  )
}

function points(heights: readonly number[], most: number): string {
  return heights
    .map((height, i) => `${((WIDTH * (i + 0.5)) / COLUMNS).toFixed(1)},${(HEIGHT - 0.94 * HEIGHT * Math.min(1, height / most)).toFixed(1)}`)
    .join('L')
}
