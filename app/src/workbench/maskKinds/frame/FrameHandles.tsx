import type { FrameMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import { pathThrough } from '../../onPhoto/geometry'
import { GuideLine, Handle } from '../../onPhoto/Handle'
import { withinLimits, type MaskHandleProps } from '../maskInterface'
import { useSource } from '../../../scene/openSceneContext'

/** Inset and softness from the top edge of the frame. */
export function FrameHandles({ port, list, mask }: MaskHandleProps<FrameMask>) {
  const source = useSource()
  const { width, height } = source.photo
  const change = (label: string, part: Partial<FrameMask>, gesture?: string) =>
    changeMask(list, mask, label, (target) => void Object.assign(target, withinLimits(mask.kind, part)), gesture)
  const rect = (inset: number) =>
    `${pathThrough(port, [
      { x: inset, y: inset },
      { x: width - inset, y: inset },
      { x: width - inset, y: height - inset },
      { x: inset, y: height - inset },
    ])}Z`
  const inner = mask.inset + mask.softness
  return (
    <>
      <GuideLine d={rect(mask.inset)} dashed />
      <GuideLine d={rect(inner)} />
      <Handle
        port={port}
        at={{ x: width / 2 + 40 / port.zoom, y: inner }}
        label="Softness of the frame edge"
        look="side"
        onMove={(to, gesture) => change('Softness of the mask', { softness: Math.max(0, to.y - mask.inset) }, gesture)}
      />
      <Handle
        port={port}
        at={{ x: width / 2, y: mask.inset }}
        label="Inset of the frame edge"
        onMove={(to, gesture) => change('Inset of the mask', { inset: Math.max(0, to.y) }, gesture)}
      />
    </>
  )
}
