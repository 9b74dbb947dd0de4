import { useEffect, useState } from 'react'
import { useScene } from '../../scene/sceneStore'

const LOOP_SECONDS = 8
const FRAMES_A_SECOND = 12

/** 0-1: where the patterns are in their loop while the scene plays; 0 when it rests. */
export function usePhase(): number {
  const playing = useScene((state) => state.playing)
  const [phase, setPhase] = useState(0)
  useEffect(() => {
    if (!playing) return
    const started = performance.now()
    const timer = setInterval(() => {
      const seconds = (performance.now() - started) / 1000
      setPhase((Math.round(seconds * FRAMES_A_SECOND) / (LOOP_SECONDS * FRAMES_A_SECOND)) % 1)
    }, 1000 / FRAMES_A_SECOND)
    return () => {
      clearInterval(timer)
      setPhase(0)
    }
  }, [playing])
  return phase
}
