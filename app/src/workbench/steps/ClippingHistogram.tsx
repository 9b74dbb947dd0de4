import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { sceneGraph, type Owner } from '@welkinar/core'
import { areaOf, heightsOf, wholeChart } from '../../common/histogram'
import { chartFrame, ink } from '../../theme'
import { usePool, useSource } from '../../scene/openSceneContext'

interface ClippingHistogramProps {
  readonly owner: Owner
}

const WIDTH = 288
const HEIGHT = 60
/** Parts of the picture below this are not worth a word. */
const LEAST = 0.0005

/** The tones of the picture with the effect, and what it newly drives to white or to black. */
export function ClippingHistogram({ owner }: ClippingHistogramProps) {
  const pool = usePool()
  const source = useSource()
  const after = sceneGraph(source, { kind: 'step', effectId: owner.id, step: 'mix' })
  const before = sceneGraph(source, { kind: 'beneath', effectId: owner.id })
  const { data } = useQuery({
    queryKey: ['clipping', after.key, before.key, source.photo.id],
    queryFn: async ({ signal }) => {
      const [most, mostBefore] = await Promise.all([after, before].map((node) => pool.toneHistogram(node, source.photo, 'maximum', signal)))
      const [luma, lumaBefore] = await Promise.all(
        [after, before].map((node) => pool.toneHistogram(node, source.photo, 'encodedLuma', signal)),
      )
      return { luma, white: newly(most, mostBefore, 255), black: newly(luma, lumaBefore, 0) }
    },
    placeholderData: (earlier) => earlier,
    gcTime: 30_000,
  })
  if (!data?.luma) return null
  const { luma, white, black } = data
  const words = [white > LEAST ? `${percent(white)} newly white` : '', black > LEAST ? `${percent(black)} newly black` : ''].filter(Boolean)
  return (
    <Box>
      <Box
        component="svg"
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Tones with the effect. ${words.join(', ') || 'Nothing newly clipped'}.`}
        sx={chartFrame}
      >
        <path d={areaOf(heightsOf(luma), wholeChart(WIDTH, HEIGHT))} fill={ink.chart} />
        {white > LEAST && <rect x={WIDTH - 7} width={7} height={HEIGHT} fill={ink.accent} />}
        {black > LEAST && <rect x={0} width={7} height={HEIGHT} fill={ink.accent} />}
      </Box>
      <Box sx={{ color: words.length > 0 ? ink.accent : ink.secondary, mt: 1 }}>
        {words.length > 0 ? `Clips: ${words.join(', ')}.` : 'Nothing newly clipped.'}
      </Box>
    </Box>
  )
}

function newly(after: Uint32Array | undefined, before: Uint32Array | undefined, bin: number): number {
  const whole = after?.reduce((sum, count) => sum + count, 0) ?? 1
  return Math.max(0, (after?.[bin] ?? 0) - (before?.[bin] ?? 0)) / Math.max(1, whole)
}

function percent(part: number): string {
  return `${part < 0.01 ? (100 * part).toFixed(1) : Math.round(100 * part)} %`
}
