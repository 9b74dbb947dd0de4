import type { Rect } from '@welkinar/core'
import { useEffect, type RefObject } from 'react'
import { useScene } from '../../scene/sceneStore'
import { panBy, pinchBy, zoomAbout, type ViewPort } from '../onPhoto/viewPort'

interface Point {
  readonly x: number
  readonly y: number
}

/**
 * Wheel zooms, one pointer pans, two fingers pinch and pan, also while a tool or a handle would take one of them: that is let go then. The view is the element; `port` tells where
 * the photo lies now. In a mirrored view places count from the right.
 */
export function usePointerGestures(element: RefObject<HTMLElement | null>, shownFrame: () => Rect, port: () => ViewPort | undefined): void {
  useEffect(() => {
    const target = element.current
    if (!target) return
    const pointers = new Map<number, Point>()
    const fingers = new Map<number, Point>()
    let pinching = false
    let firstTouched: EventTarget | null = null
    const place = (event: PointerEvent | WheelEvent): Point => {
      const box = target.getBoundingClientRect()
      const x = event.clientX - box.left
      return { x: useScene.getState().mirrored ? box.width - x : x, y: event.clientY - box.top }
    }
    const onWheel = (event: WheelEvent): void => {
      const now = port()
      if (!now) return
      event.preventDefault()
      const { x, y } = place(event)
      useScene.getState().set({ place: zoomAbout(now, shownFrame(), Math.exp(-event.deltaY * 0.0016), x, y) })
    }
    /** Sees each finger before anything else does. */
    const onFinger = (event: PointerEvent): void => {
      if (event.pointerType !== 'touch') return
      const before = fingers.get(event.pointerId)
      if (event.type === 'pointerdown') fingers.set(event.pointerId, place(event))
      if (event.type === 'pointerdown' && fingers.size === 2) {
        pinching = true
        // What the first finger has begun is let go.
        for (const pointerId of fingers.keys()) {
          if (pointerId !== event.pointerId) firstTouched?.dispatchEvent(new PointerEvent('pointercancel', { pointerId, bubbles: true }))
        }
      } else if (event.type === 'pointerdown') firstTouched = event.target
      else if (event.type === 'pointermove' && before) move(event, before)
      else if (event.type === 'pointerup' || event.type === 'pointercancel') fingers.delete(event.pointerId)
      if (pinching) event.stopPropagation()
      if (fingers.size === 0) pinching = false
    }
    const move = (event: PointerEvent, before: Point): void => {
      const after = place(event)
      fingers.set(event.pointerId, after)
      const now = port()
      const other = [...fingers].find(([id]) => id !== event.pointerId)?.[1]
      if (pinching && now && other) useScene.getState().set({ place: pinchBy(now, shownFrame(), before, after, other) })
    }
    const onDown = (event: PointerEvent): void => {
      if (event.button !== 0 || event.target !== target.querySelector('canvas')) return
      target.setPointerCapture(event.pointerId)
      pointers.set(event.pointerId, place(event))
    }
    const onMove = (event: PointerEvent): void => {
      const before = pointers.get(event.pointerId)
      const now = port()
      if (!before || !now) return
      const after = place(event)
      pointers.set(event.pointerId, after)
      useScene.getState().set({ place: panBy(now, shownFrame(), after.x - before.x, after.y - before.y) })
    }
    const onUp = (event: PointerEvent): void => void pointers.delete(event.pointerId)
    const abort = new AbortController()
    const { signal } = abort
    target.addEventListener('wheel', onWheel, { passive: false, signal })
    for (const type of ['pointerdown', 'pointermove', 'pointerup', 'pointercancel'] as const) {
      target.addEventListener(type, onFinger, { capture: true, signal })
    }
    target.addEventListener('pointerdown', onDown, { signal })
    target.addEventListener('pointermove', onMove, { signal })
    target.addEventListener('pointerup', onUp, { signal })
    target.addEventListener('pointercancel', onUp, { signal })
    return () => abort.abort()
  }, [element, shownFrame, port])
}
