import { sceneGraph } from '@welkinar/core'
import { useMemo } from 'react'
import { useScene } from '../../../scene/sceneStore'
import type { ViewPort } from '../../onPhoto/viewPort'
import { screenPoint } from '../../onPhoto/geometry'
import { GuideLine } from '../../onPhoto/Handle'
import { Lens } from '../../onPhoto/Lens'
import { useSource } from '../../../scene/openSceneContext'

interface PlaceLensProps {
  readonly port: ViewPort
}

/** Photo px across. */
const SEEN = 96
const CROSS = 22

/** While a place is dragged: a cross-hair at it, and beside it a lens with the photo without any effect, one and a half times its size. */
export function PlaceLens({ port }: PlaceLensProps) {
  const source = useSource()
  const placing = useScene((state) => state.placing)
  const photo = useMemo(() => sceneGraph(source, { kind: 'photo' }), [source])
  if (!placing) return null
  const at = screenPoint(port, placing)
  return (
    <>
      <svg width={port.width} height={port.height} style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
        <GuideLine
          d={`M${at.x - CROSS} ${at.y}H${at.x - 9}M${at.x + 9} ${at.y}H${at.x + CROSS}M${at.x} ${at.y - CROSS}V${at.y - 9}M${at.x} ${at.y + 9}V${at.y + CROSS}`}
        />
      </svg>
      <Lens photo={source.photo} port={port} node={photo} at={placing} seen={SEEN} />
    </>
  )
}
