import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { ink } from '../../theme'

const TICKS = [1, 10, 100, 1000, 10000]

function inWords(metres: number): string {
  return metres < 1000 ? `${metres < 10 ? metres.toFixed(1) : Math.round(metres)} m` : `${Number((metres / 1000).toPrecision(2))} km`
}

/** Distances up a column of the photo, each tenfold one step. */
export default function DistanceProfile({ metres }: { readonly metres: readonly number[] }) {
  const data = metres.map((distance, index) => ({ up: Math.round((100 * index) / Math.max(1, metres.length - 1)), distance }))
  return (
    <ResponsiveContainer width="100%" height="100%">
      <LineChart data={data} margin={{ top: 6, right: 6, bottom: 0, left: 0 }}>
        <CartesianGrid stroke={ink.rule} vertical={false} />
        <XAxis dataKey="up" type="number" domain={[0, 100]} unit=" %" tick={{ fontSize: 12, fill: ink.secondary }} stroke={ink.rule} />
        <YAxis
          scale="log"
          domain={[1, 10000]}
          ticks={TICKS}
          width={50}
          tickFormatter={inWords}
          tick={{ fontSize: 12, fill: ink.secondary }}
          stroke={ink.rule}
          allowDataOverflow
        />
        <Tooltip
          formatter={(value) => [inWords(Number(value)), 'distance']}
          labelFormatter={(up) => `${String(up)} % up`}
          contentStyle={{ fontSize: 12, borderRadius: 3, borderColor: ink.rule }}
        />
        <Line type="monotone" dataKey="distance" stroke={ink.accent} strokeWidth={1.5} dot={false} isAnimationActive={false} />
      </LineChart>
    </ResponsiveContainer>
  )
}
