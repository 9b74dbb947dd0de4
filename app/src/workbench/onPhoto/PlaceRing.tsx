import Box from '@mui/material/Box'
import type { Ref } from 'react'
import { ink } from '../../theme'
import type { ViewPort } from './viewPort'
import { screenPoint, type Point } from './geometry'

interface PlaceRingProps {
  readonly port: ViewPort
  /** Photo px. */
  readonly at: Point
  readonly ref?: Ref<HTMLElement>
}

/** Half its side, css px. */
const HALF = 5

/** A small ring about a place of the photo. */
export function PlaceRing({ port, at, ref }: PlaceRingProps) {
  const { x, y } = screenPoint(port, at)
  return (
    <Box
      ref={ref}
      sx={{
        position: 'absolute',
        left: x - HALF,
        top: y - HALF,
        width: 2 * HALF,
        height: 2 * HALF,
        borderRadius: '50%',
        border: '1px solid #fff',
        outline: `1px solid ${ink.ink}`,
        pointerEvents: 'none',
      }}
    />
  )
}
