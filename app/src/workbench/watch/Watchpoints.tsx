import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ButtonBase from '@mui/material/ButtonBase'
import IconButton from '@mui/material/IconButton'
import { X } from '@phosphor-icons/react/dist/csr/X'
import { frameOfSource, sceneGraph, turnedPlaceOf, type PictureSource, type Size, type Watchpoint } from '@welkinar/core'
import { useMemo } from 'react'
import { useScene } from '../../scene/sceneStore'
import { ink, weight } from '../../theme'
import { LookPicture } from '../pictures/LookPicture'
import { ToolButton } from '../controls/ToolButton'
import { usePool, useSource } from '../../scene/openSceneContext'

/** Css px of a lens; two lie side by side. */
const SIDE = 90

/** Places that stay in sight pixel for pixel, before and after. */
export function Watchpoints() {
  const pool = usePool()
  const source = useSource()
  const watchpoints = useScene((state) => state.history?.scene.watchpoints)
  const [after, before] = useMemo(() => [sceneGraph(source), sceneGraph(source, { kind: 'photo' })] as const, [source])
  return (
    <Box component="section" aria-label="Watchpoints" sx={{ display: 'grid', gap: 2 }}>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <Box component="h2" sx={{ m: 0, flex: 1, fontSize: 13, fontWeight: weight.strong }}>
          Watchpoints
        </Box>
        <ToolButton tool={{ kind: 'watch' }} label="Set" />
      </Box>
      {watchpoints?.length === 0 && (
        <Box sx={{ color: ink.secondary }}>Press places that must come out well: each stays in sight here, before and after.</Box>
      )}
      {watchpoints?.map((point, index) => {
        const frame = lensAt(point, source.photo)
        const shared = { pool, photo: source.photo, frame, width: SIDE, height: SIDE }
        return (
          <Box key={point.id} sx={{ position: 'relative' }}>
            <ButtonBase
              onClick={() => goTo(source, point)}
              aria-label={`Go to watchpoint ${index + 1}`}
              sx={{ display: 'flex', gap: '2px' }}
            >
              <LookPicture {...shared} node={before} label={`Watchpoint ${index + 1} before`} />
              <LookPicture {...shared} node={after} label={`Watchpoint ${index + 1} after`} />
            </ButtonBase>
            <IconButton
              aria-label={`Remove watchpoint ${index + 1}`}
              onClick={() => remove(point.id)}
              sx={{
                position: 'absolute',
                right: 0,
                top: 0,
                p: '3px',
                borderRadius: 0,
                bgcolor: ink.paper,
                color: ink.ink,
                '&:hover': { bgcolor: ink.raised },
              }}
            >
              <X size={12} />
            </IconButton>
          </Box>
        )
      })}
      {watchpoints && watchpoints.length > 0 && (
        <Button
          variant="text"
          onClick={() => useScene.getState().change('Remove all watchpoints', (scene) => void (scene.watchpoints = []))}
          sx={{ justifySelf: 'start' }}
        >
          Remove all
        </Button>
      )}
    </Box>
  )
}

/** What a lens shows, photo px. */
function lensAt({ x, y }: Watchpoint, photo: Size) {
  const side = SIDE * window.devicePixelRatio
  const within = (at: number, length: number): number => Math.max(0, Math.min(length - side, Math.round(at - side / 2)))
  return { x: within(x, photo.width), y: within(y, photo.height), width: Math.min(side, photo.width), height: Math.min(side, photo.height) }
}

function goTo(source: PictureSource, point: Watchpoint): void {
  const { x: centreX, y: centreY } = turnedPlaceOf(frameOfSource(source), point)
  useScene.getState().set({ place: { zoom: 1 / window.devicePixelRatio, centreX, centreY } })
}

function remove(id: string): void {
  useScene.getState().change('Remove a watchpoint', (scene) => {
    scene.watchpoints = scene.watchpoints.filter((one) => one.id !== id)
  })
}
