import type { Size } from '@welkinar/core'
import { useEffect, type RefObject } from 'react'
import { useScene } from '../../scene/sceneStore'
import { panBy, zoomAbout, type ViewPort } from './viewPort'

interface Point {
  readonly x: number
  readonly y: number
}

/** Wheel zooms, one pointer pans, two pinch. The view is the element; `port` tells where the photo lies now. */
export function usePointerGestures(element: RefObject<HTMLElement | null>, photo: Size, port: () => ViewPort | undefined): void {
  useEffect(() => {
    const target = element.current
    if (!target) return
    const pointers = new Map<number, Point>()
    const place = (event: PointerEvent | WheelEvent): Point => {
      const box = target.getBoundingClientRect()
      return { x: event.clientX - box.left, y: event.clientY - box.top }
    }
    const onWheel = (event: WheelEvent): void => {
      const now = port()
      if (!now) return
      event.preventDefault()
      const { x, y } = place(event)
      useScene.getState().set({ place: zoomAbout(now, photo, Math.exp(-event.deltaY * 0.0016), x, y) })
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
      const other = [...pointers].find(([id]) => id !== event.pointerId)?.[1]
      pointers.set(event.pointerId, after)
      const next = other ? pinch(now, photo, before, after, other) : panBy(now, photo, after.x - before.x, after.y - before.y)
      useScene.getState().set({ place: next })
    }
    const onUp = (event: PointerEvent): void => void pointers.delete(event.pointerId)
    target.addEventListener('wheel', onWheel, { passive: false })
    target.addEventListener('pointerdown', onDown)
    target.addEventListener('pointermove', onMove)
    target.addEventListener('pointerup', onUp)
    target.addEventListener('pointercancel', onUp)
    return () => {
      target.removeEventListener('wheel', onWheel)
      target.removeEventListener('pointerdown', onDown)
      target.removeEventListener('pointermove', onMove)
      target.removeEventListener('pointerup', onUp)
      target.removeEventListener('pointercancel', onUp)
    }
  }, [element, photo, port])
}

function pinch(port: ViewPort, photo: Size, before: Point, after: Point, other: Point) {
  const distance = (a: Point, b: Point): number => Math.max(1, Math.hypot(a.x - b.x, a.y - b.y))
  const factor = distance(after, other) / distance(before, other)
  return zoomAbout(port, photo, factor, (after.x + other.x) / 2, (after.y + other.y) / 2)
}
