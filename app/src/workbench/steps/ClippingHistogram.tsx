import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { sceneGraph, type Owner, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { chartFrame, ink } from '../../theme'

interface ClippingHistogramProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly owner: Owner
}

const WIDTH = 288
const HEIGHT = 60
const COLUMNS = 64
/** Parts of the picture below this are not worth a word. */
const LEAST = 0.0005

/** The tones of the picture with the effect, and what it newly drives to white or to black. */
export function ClippingHistogram({ pool, source, owner }: ClippingHistogramProps) {
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
        <path d={areaOf(luma)} fill={ink.chart} />
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

/** Heights by the square root, so that small numbers of bright pixels are seen too. */
function areaOf(bins: Uint32Array): string {
  const share = bins.length / COLUMNS
  const heights = Array.from({ length: COLUMNS }, (_, i) =>
    Math.sqrt(bins.subarray(i * share, (i + 1) * share).reduce((sum, count) => sum + count, 0)),
  )
  const most = Math.max(1, ...heights)
  const points = heights.map(
    (height, i) => `${((WIDTH * (i + 0.5)) / COLUMNS).toFixed(1)},${(HEIGHT - (0.94 * HEIGHT * height) / most).toFixed(1)}`,
  )
  return `M0,${HEIGHT}L${points.join('L')}L${WIDTH},${HEIGHT}Z`
}
