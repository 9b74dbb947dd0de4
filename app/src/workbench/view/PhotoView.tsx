import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { maskList, NOT_READ, photoPlaceOf, type Rect } from '@welkinar/core'
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type MouseEvent, type PointerEvent } from 'react'
import { OpeningPicture } from '../../scene/OpeningScene'
import { showWhileOpening, useOpeningPicture } from '../../scene/openingPicture'
import { useReadingByItself } from '../../scene/readPhoto'
import { chosenMask, useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { PictureView, type ViewTrouble } from './PictureView'
import { CompareWith } from './CompareWith'
import { pointerPlace, toPhoto } from '../onPhoto/geometry'
import { PhotoOverlay } from './overlay/PhotoOverlay'
import { SplitDivider } from './SplitDivider'
import { usePhase } from './usePhase'
import { useEditedList, useShownFrame, useShownSource } from './useShown'
import { usePointerGestures } from './usePointerGestures'
import { useScreenSize } from '../../common/useScreenSize'
import { panBy, viewPortFor, zoomAbout, type ViewPort } from '../onPhoto/viewPort'
import { usePool, useSource } from '../../scene/openSceneContext'

const ARROW_STEP = 60

/** The picture on its neutral surround. */
export function PhotoView() {
  const pool = usePool()
  const source = useSource()
  const surface = useRef<HTMLDivElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const view = useRef<PictureView>(undefined)
  const [settled, setSettled] = useState(false)
  const [trouble, setTrouble] = useState<ViewTrouble>()
  const screen = useScreenSize(surface)
  const place = useScene((state) => state.place)
  const blinked = useBlink()
  const compare = useScene((state) => (state.holdingBefore || blinked ? 'before' : state.compare))
  const mirrored = useScene((state) => state.mirrored)
  const marksClipped = useScene((state) => state.marksClipped)
  const against = useScene((state) => state.against)
  const splitAt = useScene((state) => state.splitAt)
  const maskView = useScene((state) => state.maskView)
  const list = useEditedList(source)
  const chosenMaskId = useScene((state) => state.chosenMaskId)
  const maskScope = useScene((state) => state.maskScope)
  const edited = useScene((state) => state.selectedId)
  const exaggerated = useScene((state) => (state.exaggerating ? state.selectedId : undefined))
  const phase = usePhase()
  const moving = useScene((state) => state.playing)
  const covered = useOpeningPicture((state) => state.picture !== undefined) && place.zoom === 'fit'
  const tried = useShownSource(source)
  const painted = useScene((state) => state.painted)
  const trial = useScene((state) => state.trial)
  const shown = useMemo(() => (phase > 0 ? Object.freeze({ ...tried, phase }) : tried), [tried, phase])
  const frame = useShownFrame(source)
  const port = screen && viewPortFor(place, frame, screen, window.devicePixelRatio)
  const latestPort = useRef<ViewPort>(undefined)
  const currentPort = useCallback(() => latestPort.current, [])
  const latestFrame = useRef<Rect>(frame)
  const currentFrame = useCallback(() => latestFrame.current, [])
  usePointerGestures(surface, currentFrame, currentPort)

  useEffect(() => {
    if (!canvas.current) return
    const created = new PictureView(pool, canvas.current, setSettled, setTrouble)
    view.current = created
    return () => created.dispose()
  }, [pool])

  useEffect(() => {
    latestPort.current = port
    latestFrame.current = frame
    const maskId = list && maskScope === 'one' ? chosenMask(maskList(source, list), chosenMaskId, source.shared)?.id : undefined
    if (port)
      view.current?.show({
        source: shown,
        frame,
        port,
        compare,
        against: against?.source,
        splitAt,
        maskView,
        marksClipped,
        list,
        maskId,
        edited,
        exaggerated,
        // A stroke is followed from picture to picture only where nothing else differs.
        painted: painted && tried === trial ? { ...painted, without: source } : undefined,
        moving,
        covered,
      })
  })

  useEffect(() => {
    if (settled) showWhileOpening(undefined)
  }, [settled])

  useReadingByItself(pool, source, settled)

  const zoom = port?.zoom
  useEffect(() => {
    if (zoom !== undefined) useScene.getState().set({ shownZoom: zoom })
  }, [zoom])

  const onKeyDown = (event: KeyboardEvent) => {
    const by = arrows[event.key]
    if (!by || !port || event.ctrlKey || event.metaKey) return
    event.preventDefault()
    useScene.getState().set({ place: panBy(port, frame, (mirrored ? 1 : -1) * by[0] * ARROW_STEP, -by[1] * ARROW_STEP) })
  }

  /** Place in the frame under the pointer, as it is seen. */
  const seenAt = (event: MouseEvent<HTMLElement>, now: ViewPort) => {
    const at = toPhoto(now, pointerPlace(event, event.currentTarget))
    return mirrored ? { ...at, x: 2 * now.centreX - at.x } : at
  }

  const notePlace = (event: PointerEvent<HTMLElement>) => {
    if (!port || !useScene.getState().watchOpen) return
    const at = seenAt(event, port)
    useScene.getState().set({ pointerAt: isInside(frame, at) ? photoPlaceOf(frame, at) : undefined })
  }

  /** From all of the photo to its pixels at the place that is pressed, and back. */
  const zoomHere = (event: MouseEvent<HTMLElement>) => {
    if (!port) return
    const { set } = useScene.getState()
    if (place.zoom !== 'fit') return set({ place: { ...place, zoom: 'fit' } })
    const { x, y } = pointerPlace(event, event.currentTarget)
    set({ place: zoomAbout(port, frame, 1 / window.devicePixelRatio / port.zoom, mirrored ? port.width - x : x, y) })
  }

  // With Alt held a press asks which effects change the place.
  const askHere = (event: MouseEvent<HTMLElement>) => {
    // The pointer is captured by the frame while it is down.
    if (!event.altKey || !port || (event.target !== canvas.current && event.target !== event.currentTarget)) return
    const at = seenAt(event, port)
    if (isInside(frame, at)) useScene.getState().set({ askedAt: photoPlaceOf(frame, at) })
  }

  return (
    <Box
      ref={surface}
      role="group"
      aria-label="Picture. Arrow keys move it, plus and minus zoom. A press with Alt lists the effects of a place."
      tabIndex={0}
      onKeyDown={onKeyDown}
      onClick={askHere}
      onPointerMove={notePlace}
      onPointerLeave={() => useScene.getState().set({ pointerAt: undefined })}
      onDoubleClick={zoomHere}
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
      {place.zoom === 'fit' && <OpeningPicture />}
      <canvas
        ref={canvas}
        data-testid="picture"
        data-settled={settled}
        data-read={source.marks?.reading?.method !== NOT_READ}
        style={{ width: '100%', height: '100%', display: 'block', position: 'relative', transform: mirrored ? 'scaleX(-1)' : 'none' }}
      />
      {port && !mirrored && <PhotoOverlay frame={frame} port={port} settled={settled} />}
      {trouble && <Trouble trouble={trouble} onAgain={() => view.current?.tryAgain()} />}
      {compare !== 'after' && <CompareWith />}
      {mirrored && <Mirrored />}
      {port && compare === 'split' && !mirrored && <SplitDivider port={port} frame={frame} />}
    </Box>
  )
}

/** Says that what is seen is the other way round, and how to leave that. */
function Mirrored() {
  return (
    <Button
      variant="contained"
      onClick={() => useScene.getState().set({ mirrored: false })}
      sx={{ position: 'absolute', left: 12, bottom: 12 }}
    >
      Mirrored. Turn it back
    </Button>
  )
}

/** What could not be computed, over the picture that is still shown. */
function Trouble({ trouble, onAgain }: { readonly trouble: ViewTrouble; onAgain(): void }) {
  return (
    <Box
      role="alert"
      onDoubleClick={(event) => event.stopPropagation()}
      sx={{
        position: 'absolute',
        left: 16,
        right: 16,
        bottom: 16,
        px: 4,
        py: 2,
        display: 'flex',
        gap: 4,
        alignItems: 'center',
        bgcolor: ink.raised,
        borderLeft: `4px solid ${ink.accent}`,
        cursor: 'default',
      }}
    >
      <Box sx={{ flex: 1 }}>{trouble.words} What you see is older or coarser.</Box>
      <Button variant="outlined" onClick={onAgain} sx={{ flex: 'none' }}>
        Try again
      </Button>
    </Box>
  )
}

const arrows: Record<string, readonly [number, number] | undefined> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

const BLINK_MS = 700

/** Whether what the picture is compared with is shown, while the two are shown in turn. */
function useBlink(): boolean {
  const blinking = useScene((state) => state.blinking)
  const [before, setBefore] = useState(false)
  useEffect(() => {
    if (!blinking) return
    const timer = setInterval(() => setBefore((now) => !now), BLINK_MS)
    return () => {
      clearInterval(timer)
      setBefore(false)
    }
  }, [blinking])
  return before
}

function isInside({ x, y, width, height }: Rect, at: { readonly x: number; readonly y: number }): boolean {
  return at.x >= x && at.y >= y && at.x < x + width && at.y < y + height
}
