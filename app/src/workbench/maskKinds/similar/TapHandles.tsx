import { hexFromRgb, maskContext, tonesOf, type SimilarMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import { Handle } from '../../onPhoto/Handle'
import { TapSurface } from '../../onPhoto/TapSurface'
import type { MaskHandleProps, MaskSurfaceProps } from '../maskInterface'
import { usePool, useSource } from '../../../scene/openSceneContext'

/** The places that a mask grows from. */
export function TapHandles({ port, list, mask }: MaskHandleProps<SimilarMask>) {
  return mask.taps.map((tap, index) => {
    const remove = () => changeMask(list, mask, 'Remove a place', ({ taps }) => void taps.splice(index, 1))
    return (
      <Handle
        key={index}
        port={port}
        at={tap}
        colour={tap.colour}
        label={`Place ${index + 1}`}
        onMove={(to, gesture) => changeMask(list, mask, 'Move a place', ({ taps }) => void Object.assign(taps[index] ?? {}, to), gesture)}
        onRemove={remove}
        onDoubleClick={remove}
      />
    )
  })
}

/** Takes taps on the photo: each is a place with its colour. */
export function TapTool({ port, list, mask, tool }: MaskSurfaceProps<SimilarMask>) {
  const pool = usePool()
  const source = useSource()
  if (tool.kind !== 'tap similar') return null
  return (
    <>
      <svg width={port.width} height={port.height} style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
        <TapHandles port={port} list={list} mask={mask} />
      </svg>
      <TapSurface
        port={port}
        onTap={async (at) => {
          const colour = hexFromRgb(await pool.colourAt(tonesOf(mask, maskContext(source, list.owner)), source.photo, at.x, at.y))
          changeMask(list, mask, 'Tap a place', ({ taps }) => void taps.push({ ...at, colour }))
        }}
      />
    </>
  )
}
