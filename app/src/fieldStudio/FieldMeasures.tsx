import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { sceneGraph, type Effect } from '@welkinar/core'
import { lazy, Suspense } from 'react'
import { ink } from '../theme'
import { spectrumOf } from './spectrum'
import { usePool, useSource } from '../scene/openSceneContext'

const Charts = lazy(() => import('./Charts'))

interface FieldMeasuresProps {
  readonly effect: Effect
  readonly look: 'pattern' | 'shape'
}

/** How often each intensity occurs in the field, and how much of it is coarse and how much is fine. */
export function FieldMeasures({ effect, look }: FieldMeasuresProps) {
  const pool = usePool()
  const source = useSource()
  const node = sceneGraph(source, { kind: 'step', effectId: effect.id, step: look })
  const { data } = useQuery({
    queryKey: ['field measures', node.key, source.photo.id],
    queryFn: async ({ signal }) => ({
      bins: await pool.toneHistogram(node, source.photo, 'maximum', signal),
      spectrum: await spectrumOf(pool, node, source.photo, signal),
    }),
    placeholderData: (before) => before,
    gcTime: 30_000,
  })
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      <Suspense fallback={<Box sx={{ height: 250 }} />}>{data && <Charts bins={data.bins} spectrum={data.spectrum} />}</Suspense>
      {!data && <Box sx={{ height: 250, color: ink.secondary }}>Measuring the field …</Box>}
    </Box>
  )
}
