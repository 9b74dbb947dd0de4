import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { sceneGraph, type ToneChannel } from '@welkinar/core'
import { useMemo } from 'react'
import { areaOf, heightsOf, lineOf, wholeChart } from '../../common/histogram'
import { channel, chartFrame, ink } from '../../theme'
import { usePool, useSource } from '../../scene/openSceneContext'

const WIDTH = 180
const HEIGHT = 84
const chart = wholeChart(WIDTH, HEIGHT)
const channels: readonly ToneChannel[] = ['encodedLuma', 'red', 'green', 'blue']
/** What each is drawn with; a dash of its own tells them apart too. */
const lines = [
  { colour: channel.red, dash: undefined, name: 'red' },
  { colour: channel.green, dash: '4 2', name: 'green' },
  { colour: channel.blue, dash: '1.5 1.5', name: 'blue' },
] as const

/** How often each tone occurs in the picture: luma as an area, the channels as lines. */
export function Histogram() {
  const pool = usePool()
  const source = useSource()
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
      {heights?.[0] && <path d={areaOf(heights[0], chart, most)} fill={ink.chart} />}
      {heights?.slice(1).map((channel, i) => (
        <path
          key={lines[i]?.name}
          d={`M${lineOf(channel, chart, most)}`}
          fill="none"
          stroke={lines[i]?.colour}
          strokeDasharray={lines[i]?.dash}
          strokeWidth={1.1}
        />
      ))}
    </Box>
  )
}
