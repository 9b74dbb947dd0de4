import Box from '@mui/material/Box'
import { findOwner, type Effect, type Owner, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react'
import { chosenMask, useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { PictureView } from './PictureView'
import { PhotoOverlay } from './overlay/PhotoOverlay'
import { SplitDivider } from './SplitDivider'
import { usePhase } from './usePhase'
import { usePointerGestures } from './usePointerGestures'
import { useScreenSize } from './useScreenSize'
import { panBy, viewPortFor, type ViewPort } from './viewPort'

interface PhotoViewProps {
  readonly pool: RenderPool
  readonly source: PictureSource
}

const ARROW_STEP = 60

/** The picture on its neutral surround. */
export function PhotoView({ pool, source }: PhotoViewProps) {
  const frame = useRef<HTMLDivElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const view = useRef<PictureView>(undefined)
  const [settled, setSettled] = useState(false)
  const screen = useScreenSize(frame)
  const place = useScene((state) => state.place)
  const compare = useScene((state) => (state.holdingBefore ? 'before' : state.compare))
  const splitAt = useScene((state) => state.splitAt)
  const maskView = useScene((state) => state.maskView)
  const selectedId = useScene((state) => state.selectedId)
  const chosenMaskId = useScene((state) => state.chosenMaskId)
  const maskScope = useScene((state) => state.maskScope)
  const exaggerated = useScene((state) => (state.exaggerating ? state.selectedId : undefined))
  const phase = usePhase()
  const moving = useScene((state) => state.playing)
  const tried = useShownSource(source)
  const shown = useMemo(() => (phase > 0 ? { ...tried, phase } : tried), [tried, phase])
  const { photo } = source
  const port = screen && viewPortFor(place, photo, screen, window.devicePixelRatio)
  const latestPort = useRef<ViewPort>(undefined)
  const currentPort = useCallback(() => latestPort.current, [])
  usePointerGestures(frame, photo, currentPort)

  useEffect(() => {
    if (!canvas.current) return
    const created = new PictureView(pool, canvas.current, setSettled)
    view.current = created
    return () => created.dispose()
  }, [pool])

  useEffect(() => {
    latestPort.current = port
    const maskId = maskScope === 'one' ? chosenMask(findOwner(source, selectedId), chosenMaskId)?.id : undefined
    if (port) view.current?.show({ source: shown, port, compare, splitAt, maskView, selectedId, maskId, exaggerated, moving })
  })

  const zoom = port?.zoom
  useEffect(() => {
    if (zoom !== undefined) useScene.getState().set({ shownZoom: zoom })
  }, [zoom])

  const onKeyDown = (event: KeyboardEvent) => {
    const by = arrows[event.key]
    if (!by || !port || event.ctrlKey || event.metaKey) return
    event.preventDefault()
    useScene.getState().set({ place: panBy(port, photo, -by[0] * ARROW_STEP, -by[1] * ARROW_STEP) })
  }

  return (
    <Box
      ref={frame}
      role="group"
      aria-label="Picture. Arrow keys move it, plus and minus zoom."
      tabIndex={0}
      onKeyDown={onKeyDown}
      onDoubleClick={() => useScene.getState().set({ place: place.zoom === 'fit' ? { ...place, zoom: 1 } : { ...place, zoom: 'fit' } })}
      sx={{
        position: 'relative',
        flex: 1,
        minWidth: 0,
        minHeight: 0,
        overflow: 'hidden',
        bgcolor: ink.surround,
        cursor: 'grab',
        touchAction: 'none',
        '&:active': { cursor: 'grabbing' },
        '&:focus-visible': { outlineOffset: -2 },
      }}
    >
      <canvas ref={canvas} data-testid="picture" data-settled={settled} style={{ width: '100%', height: '100%', display: 'block' }} />
      {port && <PhotoOverlay pool={pool} source={source} port={port} settled={settled} />}
      {port && compare === 'split' && <SplitDivider port={port} photo={photo} />}
    </Box>
  )
}

const arrows: Record<string, readonly [number, number] | undefined> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** The scene as the view shows it: with what is only being tried, or without the mask of the selected effect while that is held. */
function useShownSource(source: PictureSource): PictureSource {
  const trial = useScene((state) => state.trial)
  const selectedId = useScene((state) => state.selectedId)
  const unmasked = useScene((state) => state.holdingUnmasked)
  const chosenMaskId = useScene((state) => (state.maskScope === 'one' ? state.chosenMaskId : undefined))
  const placedId = useScene((state) => state.placing?.effectId)
  return useMemo(() => {
    const tried = weakened(trial ?? source, placedId)
    if (!unmasked) return tried
    const bare = <O extends Owner>(owner: O): O => {
      if (owner.id !== selectedId) return owner
      const masks = owner.where.masks.filter((mask) => chosenMaskId !== undefined && mask.id !== chosenMaskId)
      return { ...owner, where: { ...owner.where, masks } }
    }
    return { ...tried, effects: tried.effects.map((effect) => bare(effect)), groups: (tried.groups ?? []).map(bare) }
  }, [trial, source, unmasked, selectedId, chosenMaskId, placedId])
}

/** How much of an effect is seen while its place is being looked for. */
const PLACING_PART = 0.25

function weakened(source: PictureSource, effectId: string | undefined): PictureSource {
  if (effectId === undefined) return source
  const weak = (effect: Effect): Effect => ({ ...effect, mix: { ...effect.mix, amount: effect.mix.amount * PLACING_PART } })
  return { ...source, effects: source.effects.map((effect) => (effect.id === effectId ? weak(effect) : effect)) }
}
