import type { Size } from '@welkinar/core'
import { useEffect, useState, type RefObject } from 'react'

/** Size of an element in css px, kept up to date; undefined before it is known. */
export function useScreenSize(element: RefObject<HTMLElement | null>): Size | undefined {
  const [size, setSize] = useState<Size>()
  useEffect(() => {
    const target = element.current
    if (!target) return
    const observer = new ResizeObserver(() => setSize({ width: target.clientWidth, height: target.clientHeight }))
    observer.observe(target)
    return () => observer.disconnect()
  }, [element])
  return size
}
