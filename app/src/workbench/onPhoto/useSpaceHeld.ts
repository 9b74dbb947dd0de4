import { useState } from 'react'
import { useKeys } from '../../keys/listener'

/** While Space is down the pointer moves the photo instead of what a tool does. */
export function useSpaceHeld(): boolean {
  const [held, setHeld] = useState(false)
  useKeys([{ id: 'hold-move', hold: setHeld }], 'tool')
  return held
}
