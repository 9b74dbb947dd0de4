import Box from '@mui/material/Box'
import { frameOfSource, framedGraph, type Scene } from '@welkinar/core'
import { useCallback, useEffect, useRef, useState, type ReactNode } from 'react'
import { useScreenSize } from '../../common/useScreenSize'
import { canvasSettings } from '../../engine/canvasSpace'
import { renderTrouble } from '../../engine/renderTrouble'
import { usePool } from '../../scene/openSceneContext'
import { useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { viewPortFor, type ViewPort } from '../onPhoto/viewPort'
import { LookLayer } from './LookLayer'
import { usePointerGestures } from './usePointerGestures'

interface ScenePaneProps {
  readonly scene: Scene
  /** What is seen, in words. */
  readonly words: string
  /** Whether it has a row for itself. */
  readonly wide?: boolean
  /** What can be done with it. */
  readonly children?: ReactNode
}

/** A scene that need not be the open one, as large as there is room; wheel, drag and keys move all panes alike. */
export function ScenePane({ scene, words, wide = false, children }: ScenePaneProps) {
  const pool = usePool()
  const surface = useRef<HTMLDivElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const layer = useRef<LookLayer>(undefined)
  const [settled, setSettled] = useState(false)
  const [trouble, setTrouble] = useState<unknown>()
  const screen = useScreenSize(surface)
  const place = useScene((state) => state.place)
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
      <Box
        sx={{
          flex: 'none',
          display: 'flex',
          flexWrap: 'wrap',
          alignItems: 'center',
          columnGap: 4,
          rowGap: 1,
          px: 4,
          py: 2,
          bgcolor: ink.paper,
        }}
      >
        <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {words}
          {trouble !== undefined && (
            <Box component="span" role="alert" sx={{ ml: 3, color: ink.accent }}>
              {renderTrouble(trouble, scene, 'The picture')}
            </Box>
          )}
        </Box>
        {children}
      </Box>
    </Box>
  )
}
