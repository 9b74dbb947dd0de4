import Box from '@mui/material/Box'
import { findOwner, isEffect, noMarks, regionOwner, type Mask, type PictureSource, type SimilarMask } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useShallow } from 'zustand/shallow'
import { changeMask, chosenMask, useScene } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import type { ViewPort } from '../viewPort'
import { BrushSurface } from './BrushSurface'
import { GlintHandles, GlintSurface } from './GlintHandles'
import { Handle } from './Handle'
import { MarkHandles } from './MarkHandles'
import { MaskOutlines } from './OutlineHandles'
import { OutlineSurface } from './OutlineSurface'
import { addRegion } from '../../scenePanel/regions'
import { addPath, PathHandles } from './PathHandles'
import { PlaceHandles } from './PlaceHandles'
import { PlaceLens } from './PlaceLens'
import { BandHandles, EllipseHandles, FrameHandles, LineHandles } from './ShapeHandles'
import { TapSurface } from './TapSurface'

interface PhotoOverlayProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly port: ViewPort
  readonly settled: boolean
}

/** What lies over the photo for the hand: handles of the chosen mask or of the scene marks, and the tool that takes the pointer. */
export function PhotoOverlay({ pool, source, port, settled }: PhotoOverlayProps) {
  const { selectedId, openStep, chosenMaskId, sceneOpen, tool } = useScene(
    useShallow(({ selectedId, openStep, chosenMaskId, sceneOpen, tool }) => ({ selectedId, openStep, chosenMaskId, sceneOpen, tool })),
  )
  const owner = findOwner(source, selectedId)
  const placing = !sceneOpen && (openStep === 'pattern' || openStep === 'shape')
  const editing = openStep === 'where' && !sceneOpen
  const effect = owner && isEffect(owner) ? owner : undefined
  // The masks of a region are edited where the region is, in the step of the pattern or the shape.
  const region = effect && placing ? regionOwner(effect) : undefined
  const regionMask = region?.where.masks.find(({ id }) => id === chosenMaskId)
  const mask = editing ? chosenMask(owner, chosenMaskId) : regionMask
  const ownerId = regionMask ? region?.id : owner?.id
  return (
    <>
      {!tool && (
        <Box
          component="svg"
          width={port.width}
          height={port.height}
          sx={{
            position: 'absolute',
            inset: 0,
            pointerEvents: 'none',
            touchAction: 'none',
            '& .handle': { pointerEvents: 'auto', cursor: 'move', outline: 'none' },
            '& .handle:focus-visible > :nth-of-type(1)': { stroke: ink.accent, strokeWidth: 3 },
          }}
        >
          {sceneOpen && <MarkHandles port={port} source={source} />}
          {effect && placing && <PlaceHandles port={port} effect={effect} marks={source.marks ?? noMarks} />}
          {effect && placing && <GlintHandles port={port} effect={effect} />}
          {effect && placing && <PathHandles port={port} effect={effect} />}
          {mask && ownerId && <MaskHandles port={port} source={source} ownerId={ownerId} mask={mask} />}
        </Box>
      )}
      {tool?.kind === 'paint' && mask?.kind === 'brush' && ownerId && (
        <BrushSurface port={port} ownerId={ownerId} mask={mask} settled={settled} />
      )}
      {tool?.kind === 'outline' && mask?.kind === 'outline' && ownerId && (
        <OutlineSurface
          key={String(tool.hole)}
          port={port}
          onDrawn={(corners) =>
            changeMask(ownerId, mask, tool.hole ? 'Draw a hole' : 'Draw an outline', ({ paths }) => {
              paths.push({ hole: tool.hole, corners })
            })
          }
        />
      )}
      {tool?.kind === 'glints' && effect && <GlintSurface port={port} effect={effect} />}
      {tool?.kind === 'path' && effect && <OutlineSurface port={port} open onDrawn={(corners) => addPath(effect, corners)} />}
      {effect && <PlaceLens pool={pool} source={source} port={port} />}
      {tool?.kind === 'region' && sceneOpen && <OutlineSurface port={port} onDrawn={addRegion} />}
      {((tool?.kind === 'mark' && sceneOpen) || (mask && (tool?.kind === 'tap similar' || tool?.kind === 'pick hue'))) && tool && (
        <>
          <svg width={port.width} height={port.height} style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
            {sceneOpen && <MarkHandles port={port} source={source} />}
            {mask?.kind === 'similar' && ownerId && <TapHandles port={port} ownerId={ownerId} mask={mask} />}
          </svg>
          <TapSurface pool={pool} source={source} port={port} tool={tool} ownerId={ownerId} mask={mask} />
        </>
      )}
    </>
  )
}

interface MaskHandlesProps {
  readonly port: ViewPort
  readonly source: PictureSource
  readonly ownerId: string
  readonly mask: Mask
}

function MaskHandles({ mask, ...rest }: MaskHandlesProps) {
  switch (mask.kind) {
    case 'ellipse':
      return <EllipseHandles {...rest} mask={mask} />
    case 'line':
      return <LineHandles {...rest} mask={mask} />
    case 'band':
      return <BandHandles {...rest} mask={mask} />
    case 'frame':
      return <FrameHandles {...rest} mask={mask} />
    case 'outline':
      return <MaskOutlines {...rest} mask={mask} />
    case 'similar':
      return <TapHandles {...rest} mask={mask} />
    case 'luminosity':
    case 'sky':
    case 'colour':
    case 'brush':
    case 'cloud':
    case 'depth':
    case 'pattern':
    case 'picture':
      return null
  }
}

function TapHandles({ port, ownerId, mask }: { readonly port: ViewPort; readonly ownerId: string; readonly mask: SimilarMask }) {
  return mask.taps.map((tap, index) => (
    <Handle
      key={index}
      port={port}
      at={tap}
      colour={tap.colour}
      label={`Place ${index + 1}`}
      onMove={(to, gesture) => changeMask(ownerId, mask, 'Move a place', ({ taps }) => void Object.assign(taps[index] ?? {}, to), gesture)}
      onRemove={() => changeMask(ownerId, mask, 'Remove a place', ({ taps }) => void taps.splice(index, 1))}
      onDoubleClick={() => changeMask(ownerId, mask, 'Remove a place', ({ taps }) => void taps.splice(index, 1))}
    />
  ))
}
