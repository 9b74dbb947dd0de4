import { useEffect, useRef, useState } from 'react'

/** Whether an element was in sight once: pictures that nobody has looked at are not computed. */
export function useSeen(): [React.RefObject<HTMLDivElement | null>, boolean] {
  const element = useRef<HTMLDivElement>(null)
  const [seen, setSeen] = useState(false)
  useEffect(() => {
    if (!element.current) return
    const observer = new IntersectionObserver((entries) => entries.some(({ isIntersecting }) => isIntersecting) && setSeen(true), {
      rootMargin: '200px',
    })
    observer.observe(element.current)
    return () => observer.disconnect()
  }, [])
  return [element, seen]
}
