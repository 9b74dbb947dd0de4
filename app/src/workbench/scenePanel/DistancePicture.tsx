import Box from '@mui/material/Box'
import { gridAt, gridBounds, PICTURED_FROM, PICTURED_TO, sceneGraph, type PictureSource } from '@welkinar/core'
import { priorities, type RenderPool } from '@welkinar/core/pool'
import { lazy, Suspense, useEffect, useMemo, useState } from 'react'
import { NumberControl } from '../../common/NumberControl'
import { showProblem } from '../../common/notices'
import { ink } from '../../theme'
import { LookPicture } from '../pictures/LookPicture'
import { usePool, useSource } from '../../scene/openSceneContext'

const DistanceProfile = lazy(() => import('./DistanceProfile'))

const WIDTH = 286
const SAMPLES = 240

/** The distances of the scene as a grey picture, and as a profile up one column of it. */
export function DistancePicture() {
  const pool = usePool()
  const source = useSource()
  const [across, setAcross] = useState(50)
  const node = useMemo(() => sceneGraph(source, { kind: 'distance' }), [source])
  const metres = useDistances(pool, source, node, across)
  const height = Math.round((WIDTH * source.photo.height) / source.photo.width)
  return (
    <>
      <Box sx={{ position: 'relative', width: WIDTH, height }}>
        <LookPicture node={node} photo={source.photo} width={WIDTH} height={height} label="Distances: near is white, far is black" />
        <Box sx={{ position: 'absolute', top: 0, bottom: 0, left: `${across}%`, borderLeft: `2px solid ${ink.accent}` }} />
      </Box>
      <NumberControl
        control={{
          label: 'Profile at',
          unit: '%',
          usual: [0, 100],
          step: 1,
          hint: 'How far across the photo the profile runs, bottom to top.',
        }}
        limits={{ least: 0, most: 100, whole: false }}
        value={across}
        start={50}
        onChange={setAcross}
      />
      <Box sx={{ height: 150 }}>
        <Suspense fallback={null}>{metres && <DistanceProfile metres={metres} />}</Suspense>
      </Box>
    </>
  )
}

/** Distances up a column, from the bottom of the photo to its top. */
function useDistances(
  pool: RenderPool,
  source: PictureSource,
  node: ReturnType<typeof sceneGraph>,
  across: number,
): readonly number[] | undefined {
  const [metres, setMetres] = useState<readonly number[]>()
  useEffect(() => {
    const abort = new AbortController()
    const grid = gridAt(source.photo, Math.min(1, SAMPLES / source.photo.height))
    const whole = gridBounds(grid)
    const rect = { ...whole, x: Math.min(whole.width - 1, Math.floor((across / 100) * whole.width)), width: 1 }
    pool
      .renderPixels({ node, grid, rect, tileSize: 512, priority: priorities.steps, signal: abort.signal })
      .then((pixels) => {
        if (abort.signal.aborted) return
        const column = Array.from({ length: rect.height }, (_, y) => pixels[4 * y] ?? 0).reverse()
        setMetres(column.map((code) => PICTURED_TO * Math.pow(PICTURED_FROM / PICTURED_TO, code / 255)))
      })
      .catch((error: unknown) => {
        if (!abort.signal.aborted) showProblem(error, 'Reading the distances')
      })
    return () => abort.abort()
  }, [pool, node, source.photo, across])
  return metres
}
