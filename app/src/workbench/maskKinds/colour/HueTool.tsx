import { hueOf, maskContext, tonesOf, type ColourMask } from '@welkinar/core'
import { changeMask, useScene } from '../../../scene/sceneStore'
import { TapSurface } from '../../view/overlay/TapSurface'
import type { MaskSurfaceProps } from '../maskInterface'

/** Takes a tap on the photo: its hue is the mask's. */
export function HueTool({ pool, source, port, list, mask, tool }: MaskSurfaceProps<ColourMask>) {
  if (tool.kind !== 'pick hue') return null
  return (
    <TapSurface
      port={port}
      onTap={async (at) => {
        const colour = await pool.colourAt(tonesOf(mask, maskContext(source, list.owner)), source.photo, at.x, at.y)
        changeMask(list, mask, 'Pick a hue', (target) => void (target.hue = Math.round(hueOf(colour))))
        useScene.getState().set({ tool: undefined })
      }}
    />
  )
}
