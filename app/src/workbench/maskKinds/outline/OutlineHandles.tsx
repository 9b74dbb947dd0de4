import type { OutlineMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import { FreehandSurface } from '../../onPhoto/FreehandSurface'
import { OutlineHandles } from '../../onPhoto/OutlineHandles'
import { OutlineSurface } from '../../onPhoto/OutlineSurface'
import type { MaskHandleProps, MaskSurfaceProps } from '../maskInterface'

/** Corners and curve handles of the outlines of a mask. */
export function MaskOutlines({ port, list, mask }: MaskHandleProps<OutlineMask>) {
  return mask.paths.map(({ corners }, path) => (
    <OutlineHandles
      key={path}
      port={port}
      corners={corners}
      name={`outline ${path + 1}`}
      onEdit={(label, change, gesture) =>
        changeMask(
          list,
          mask,
          label,
          ({ paths }) => {
            const target = paths[path]
            if (target) change(target.corners)
            if (target && target.corners.length < 3) paths.splice(path, 1)
          },
          gesture,
        )
      }
    />
  ))
}

/** Takes the pointer while an outline or a hole is drawn. */
export function OutlineTool({ port, list, mask, tool }: MaskSurfaceProps<OutlineMask>) {
  if (tool.kind !== 'outline') return null
  const { hole, by } = tool
  const Surface = by === 'freehand' ? FreehandSurface : OutlineSurface
  return (
    <Surface
      key={String(hole)}
      port={port}
      onDrawn={(corners) =>
        changeMask(list, mask, hole ? 'Draw a hole' : 'Draw an outline', ({ paths }) => void paths.push({ hole, corners }))
      }
    />
  )
}
