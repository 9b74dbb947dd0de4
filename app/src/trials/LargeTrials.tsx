import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { frameOfSource, framedGraph } from '@welkinar/core'
import { useCallback, useEffect, useRef, useState } from 'react'
import { useScreenSize } from '../common/useScreenSize'
import { canvasSettings } from '../engine/canvasSpace'
import { renderTrouble } from '../engine/renderTrouble'
import { useKeys } from '../keys/listener'
import { usePool } from '../scene/openSceneContext'
import { useScene } from '../scene/sceneStore'
import { zoomCommands } from '../scene/zoomCommands'
import { ink } from '../theme'
import { viewPortFor, type ViewPort } from '../workbench/onPhoto/viewPort'
import { LookLayer } from '../workbench/view/LookLayer'
import { usePointerGestures } from '../workbench/view/usePointerGestures'
import type { ShownTrial } from './sheet'
import { useTrials } from './trialsStore'

interface LargeTrialsProps {
  /** Those of the sheet, in its order. */
  readonly all: readonly ShownTrial[]
  /** Those that are seen, one to four of them. */
  readonly seen: readonly ShownTrial[]
  onTake(trial: ShownTrial): void
}

/** Trials as large as there is room, side by side, at the same place of the photo. Arrow keys go through them in place: of one alone through all of the sheet, else through those that are compared. */
export function LargeTrials({ all, seen, onTake }: LargeTrialsProps) {
  const [only, setOnly] = useState<number>()
  const inPlace = only === undefined ? undefined : seen[only % seen.length]
  const shown = inPlace ? [inPlace] : seen
  const go = (by: -1 | 1) => {
    const [one] = seen
    if (seen.length === 1 && one) {
      const at = all.findIndex(({ id }) => id === one.id)
      const next = all[(at + by + all.length) % all.length]
      if (next) useTrials.setState({ large: [next.id] })
    } else setOnly(((only ?? (by > 0 ? -1 : 0)) + by + seen.length) % seen.length)
  }
  useKeys([
    { id: 'trial-next', repeats: true, run: () => go(1) },
    { id: 'trial-before', repeats: true, run: () => go(-1) },
    ...zoomCommands,
    { id: 'tool-off', run: () => (only === undefined ? useTrials.setState({ large: [] }) : setOnly(undefined)) },
  ])
  return (
    <Box
      sx={{
        flex: 1,
        minHeight: 0,
        display: 'grid',
        gap: '2px',
        bgcolor: ink.rule,
        gridTemplateColumns: `repeat(${shown.length > 1 ? 2 : 1}, minmax(0, 1fr))`,
        gridAutoRows: 'minmax(0, 1fr)',
      }}
    >
      {shown.map((trial, index) => (
        <Pane
          key={inPlace || seen.length === 1 ? 'only' : trial.id}
          trial={trial}
          wide={shown.length === 3 && index === 0}
          onTake={onTake}
        />
      ))}
    </Box>
  )
}

interface PaneProps {
  readonly trial: ShownTrial
  /** Whether it has a row for itself. */
  readonly wide: boolean
  onTake(trial: ShownTrial): void
}

/** One trial; wheel, drag and keys move all panes alike. */
function Pane({ trial, wide, onTake }: PaneProps) {
  const pool = usePool()
  const surface = useRef<HTMLDivElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const layer = useRef<LookLayer>(undefined)
  const [settled, setSettled] = useState(false)
  const [trouble, setTrouble] = useState<unknown>()
  const screen = useScreenSize(surface)
  const place = useScene((state) => state.place)
  const { scene, words } = trial
  const frame = frameOfSource(scene)
  const port = screen && viewPortFor(place, frame, screen, window.devicePixelRatio)
  const latest = useRef<{ readonly port: ViewPort | undefined; readonly frame: typeof frame }>({ port, frame })
  const currentPort = useCallback(() => latest.current.port, [])
  const currentFrame = useCallback(() => latest.current.frame, [])
  usePointerGestures(surface, currentFrame, currentPort)
  const draw = useCallback(() => {
    const { port: now } = latest.current
    const target = canvas.current
    const context = target?.getContext('2d', canvasSettings(scene.photo.id))
    if (!now || !target || !context || !layer.current) return
    target.width = Math.round(now.width * now.pixelRatio)
    target.height = Math.round(now.height * now.pixelRatio)
    layer.current.draw(context, now)
    setSettled(layer.current.settled)
    setTrouble(layer.current.trouble)
  }, [scene.photo.id])
  useEffect(() => {
    const made = new LookLayer('trial', pool, draw)
    layer.current = made
    return () => made.dispose()
  }, [pool, draw])
  useEffect(() => {
    latest.current = { port, frame }
    if (!port) return
    layer.current?.want({ node: framedGraph(scene), photo: scene.photo, frame, port, moving: false, covered: false })
    draw()
  })
  const zoom = port?.zoom
  useEffect(() => {
    if (zoom !== undefined) useScene.getState().set({ shownZoom: zoom })
  }, [zoom])
  return (
    <Box
      component="section"
      aria-label={words}
      sx={{ minWidth: 0, minHeight: 0, display: 'flex', flexDirection: 'column', ...(wide && { gridColumn: '1 / -1' }) }}
    >
      <Box
        ref={surface}
        sx={{
          flex: 1,
          minHeight: 0,
          position: 'relative',
          overflow: 'hidden',
          bgcolor: ink.surround,
          cursor: 'grab',
          touchAction: 'none',
          '&:active': { cursor: 'grabbing' },
        }}
      >
        <canvas
          ref={canvas}
          role="img"
          aria-label={words}
          data-testid="trial"
          data-settled={settled}
          style={{ position: 'absolute', width: '100%', height: '100%' }}
        />
      </Box>
      <Box sx={{ flex: 'none', display: 'flex', alignItems: 'center', gap: 3, px: 4, py: 2, bgcolor: ink.paper }}>
        <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {words}
          {trouble !== undefined && (
            <Box component="span" role="alert" sx={{ ml: 3, color: ink.accent }}>
              {renderTrouble(trouble, scene, 'The picture')}
            </Box>
          )}
        </Box>
        <Button variant="contained" onClick={() => onTake(trial)} aria-label={`Take over ${words}`}>
          Take over
        </Button>
      </Box>
    </Box>
  )
}
