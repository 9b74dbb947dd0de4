import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { findOwner, hexFromRgb, sceneGraph, type GraphNode, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { showProblem } from '../../../common/notices'
import { giveColour, useTonesOf } from '../../../scene/colourTakers'
import { useScene } from '../../../scene/sceneStore'
import type { Dropper as DropperTool } from '../../../scene/viewState'
import { ink } from '../../../theme'
import type { ViewPort } from '../../onPhoto/viewPort'
import { limited, pointerPlace, toPhoto, type Point } from '../../onPhoto/geometry'
import { Lens } from '../../onPhoto/Lens'
import { PlaceRing } from '../../onPhoto/PlaceRing'
import { TapSurface } from '../../onPhoto/TapSurface'
import { ToolHint } from '../../onPhoto/ToolHint'
import { usePool, useSource } from '../../../scene/openSceneContext'

interface DropperProps {
  readonly port: ViewPort
  readonly tool: DropperTool
}

/** Photo px across in the lens. */
const SEEN = 24
/** Css px that an arrow key moves it, and with Shift. */
const STEP = 1
const LONG_STEP = 10

const steps: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** Takes a colour from a place on the photo, seen large: pointer, or arrow keys and Enter. */
export function Dropper({ port, tool }: DropperProps) {
  const pool = usePool()
  const source = useSource()
  const selectedId = useScene(({ selectedId }) => selectedId)
  const [beneath, setBeneath] = useState(false)
  const [place, setPlace] = useState<Point>({ x: port.centreX, y: port.centreY })
  const root = useRef<HTMLDivElement>(null)
  useEffect(() => root.current?.focus(), [])
  const owner = findOwner(source, selectedId)
  const tones = useTonesOf(tool.what)
  const node = useMemo(
    () => tones ?? sceneGraph(source, beneath && owner ? { kind: 'beneath', effectId: owner.id } : { kind: 'photo' }),
    [source, beneath, owner, tones],
  )
  const at = inPhoto(place, source.photo)
  const colour = useColourAt(pool, source.photo, node, at)
  const take = async (from: Point): Promise<void> => {
    const { x, y } = inPhoto(from, source.photo)
    const taken = await pool.colourAt(node, source.photo, x, y)
    // Put away meanwhile, or for another colour.
    if (useScene.getState().tool !== tool) return
    giveColour(tool.what, hexFromRgb(taken), taken)
    useScene.getState().set({ tool: undefined })
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const step = steps[event.key]
    if (event.target === root.current && event.key === 'Enter')
      void take(place).catch((error: unknown) => showProblem(error, 'Reading the colour'))
    if (!step) return
    event.preventDefault()
    event.stopPropagation()
    const far = (event.shiftKey ? LONG_STEP : STEP) / port.zoom
    setPlace(limited(inPhoto({ x: at.x + step[0] * far, y: at.y + step[1] * far }, source.photo)))
  }
  const onPointerMove = (event: PointerEvent<HTMLElement>) => setPlace(limited(toPhoto(port, pointerPlace(event, event.currentTarget))))
  return (
    <Box
      ref={root}
      tabIndex={0}
      role="application"
      aria-label={`Colour from the photo: ${tool.what}. Arrow keys move, Enter takes it.`}
      onKeyDown={onKeyDown}
      onPointerMove={onPointerMove}
      sx={{ position: 'absolute', inset: 0, outline: 'none' }}
    >
      <TapSurface port={port} onTap={take} />
      <PlaceRing port={port} at={at} />
      <Lens photo={source.photo} port={port} node={node} at={at} seen={SEEN}>
        <Box
          data-testid="dropper colour"
          sx={{ position: 'absolute', insetInline: 0, bottom: 0, height: 26, display: 'flex', bgcolor: ink.paper, alignItems: 'center' }}
        >
          <Box sx={{ width: 40, alignSelf: 'stretch', bgcolor: colour ?? 'transparent' }} />
          <Box sx={{ px: 2, fontVariantNumeric: 'tabular-nums' }}>{colour ?? '…'}</Box>
        </Box>
      </Lens>
      <ToolHint text={`${tool.what}: press a place`}>
        {owner && !tones && (
          <Button variant="outlined" aria-pressed={beneath} onClick={() => setBeneath(!beneath)}>
            {beneath ? 'From what lies beneath' : 'From the photo alone'}
          </Button>
        )}
      </ToolHint>
    </Box>
  )
}

function inPhoto({ x, y }: Point, { width, height }: PictureSource['photo']): Point {
  return { x: Math.max(0.5, Math.min(width - 0.5, x)), y: Math.max(0.5, Math.min(height - 0.5, y)) }
}

/** The mean colour about a place; of the last place until that of a new one is known. */
function useColourAt(pool: RenderPool, photo: PictureSource['photo'], node: GraphNode, { x, y }: Point): string | undefined {
  const [colour, setColour] = useState<string>()
  useEffect(() => {
    // Of the places that a hand passes only the last is worth an answer.
    const abort = new AbortController()
    pool
      .colourAt(node, photo, x, y, abort.signal)
      .then((found) => !abort.signal.aborted && setColour(hexFromRgb(found)))
      .catch((error: unknown) => !abort.signal.aborted && showProblem(error, 'Reading the colour'))
    return () => abort.abort()
  }, [pool, photo, node, x, y])
  return colour
}
