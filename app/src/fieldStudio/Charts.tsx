import Box from '@mui/material/Box'
import { Area, AreaChart, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { columnsOf } from '../common/histogram'
import { ink, weight } from '../theme'
import type { SpectrumPoint } from './spectrum'

interface ChartsProps {
  readonly bins: Uint32Array
  readonly spectrum: readonly SpectrumPoint[]
}

const TICK = { fontSize: 12, fill: ink.secondary }
const CONTENT = { fontSize: 12, borderRadius: 3, borderColor: ink.rule }
const SIZES = [2, 10, 50, 250, 1000]

/** The histogram and the spectrum of a field. */
export default function Charts({ bins, spectrum }: ChartsProps) {
  const whole = bins.reduce((sum, count) => sum + count, 0)
  const histogram = columnsOf(bins).map((count, i, { length }) => ({
    tone: Math.round((100 * (i + 0.5)) / length),
    part: (100 * count) / Math.max(1, whole),
  }))
  return (
    <>
      <Box component="h2" sx={{ m: 0, fontSize: 13, fontWeight: weight.strong }}>
        Histogram
      </Box>
      <Box sx={{ height: 90 }} role="img" aria-label="Histogram of the field">
        <ResponsiveContainer width="100%" height="100%">
          <AreaChart data={histogram} margin={{ top: 4, right: 4, bottom: 0, left: 4 }}>
            <XAxis dataKey="tone" type="number" domain={[0, 100]} ticks={[0, 50, 100]} unit=" %" tick={TICK} stroke={ink.rule} />
            <YAxis hide scale="sqrt" domain={[0, 'dataMax']} />
            <Tooltip
              formatter={(value) => [`${Number(value).toFixed(1)} %`, 'of the field']}
              labelFormatter={(tone) => `intensity ${String(tone)} %`}
              contentStyle={CONTENT}
            />
            <Area type="linear" dataKey="part" stroke={ink.ink} strokeWidth={1} fill={ink.chart} isAnimationActive={false} />
          </AreaChart>
        </ResponsiveContainer>
      </Box>
      <Box component="h2" sx={{ m: 0, fontSize: 13, fontWeight: weight.strong }}>
        Spectrum, by size of the shapes
      </Box>
      <Box sx={{ height: 110 }} role="img" aria-label="Spectrum of the field">
        <ResponsiveContainer width="100%" height="100%">
          <LineChart data={[...spectrum]} margin={{ top: 4, right: 4, bottom: 0, left: 0 }}>
            <XAxis
              dataKey="size"
              type="number"
              scale="log"
              reversed
              domain={['dataMin', 'dataMax']}
              ticks={SIZES}
              unit=" px"
              tick={TICK}
              stroke={ink.rule}
              allowDataOverflow
            />
            <YAxis domain={[-80, 0]} ticks={[-80, -40, 0]} width={52} unit=" dB" tick={TICK} stroke={ink.rule} />
            <Tooltip
              formatter={(value) => [`${Number(value).toFixed(0)} dB`, 'power']}
              labelFormatter={(size) => `shapes of ${Number(size).toFixed(0)} px`}
              contentStyle={CONTENT}
            />
            <Line type="monotone" dataKey="power" stroke={ink.accent} strokeWidth={1.5} dot={false} isAnimationActive={false} />
          </LineChart>
        </ResponsiveContainer>
      </Box>
    </>
  )
}
