import Box from '@mui/material/Box'
import { findOwner, isEffect, maskList, noMarks, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useShallow } from 'zustand/shallow'
import { chosenMask, editedList, useScene } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import { interfaceOf } from '../../kinds'
import { maskInterfaceOf } from '../../maskKinds'
import { addRegion } from '../../scenePanel/regions'
import type { ViewPort } from '../viewPort'
import { Dropper } from './Dropper'
import { MarkHandles } from './MarkHandles'
import { MarkTool } from './MarkTool'
import { OutlineSurface } from './OutlineSurface'
import { EffectPatternHandles, MaskPatternHandles } from './PatternHandles'
import { PlaceHandles } from './PlaceHandles'
import { PlaceLens } from './PlaceLens'
import { ReadMarks } from './ReadMarks'

interface PhotoOverlayProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly port: ViewPort
  readonly settled: boolean
}

/** What lies over the photo for the hand: handles of the chosen mask or of the scene marks, and the tool that takes the pointer. */
export function PhotoOverlay({ pool, source, port, settled }: PhotoOverlayProps) {
  const { sceneOpen, tool } = useScene(useShallow(({ sceneOpen, tool }) => ({ sceneOpen, tool })))
  const { effect, placing, list, mask } = useEdited(source)
  const { Handles: EffectHandles, Surface: EffectSurface } = effect ? interfaceOf(effect.kind) : {}
  const boxScene = { ...source.photo, marks: source.marks ?? noMarks }
  const { Handles: MaskHandles, Surface: MaskSurface } = mask ? maskInterfaceOf(mask.kind) : {}
  return (
    <>
      {!tool && (
        <HandleLayer port={port}>
          {sceneOpen && <ReadMarks port={port} source={source} />}
          {sceneOpen && <MarkHandles port={port} source={source} />}
          {effect && placing && <PlaceHandles port={port} effect={effect} marks={source.marks ?? noMarks} />}
          {effect && placing && <EffectPatternHandles port={port} effect={effect} scene={boxScene} />}
          {effect && placing && EffectHandles && <EffectHandles port={port} effect={effect} />}
          {mask && list && <MaskPatternHandles port={port} list={list} mask={mask} scene={boxScene} />}
          {mask && list && MaskHandles && <MaskHandles port={port} source={source} list={list} mask={mask} />}
        </HandleLayer>
      )}
      {tool && mask && list && MaskSurface && (
        <MaskSurface pool={pool} source={source} port={port} list={list} mask={mask} tool={tool} settled={settled} />
      )}
      {tool && effect && EffectSurface && <EffectSurface port={port} effect={effect} tool={tool} />}
      {effect && <PlaceLens pool={pool} source={source} port={port} />}
      {tool?.kind === 'dropper' && <Dropper pool={pool} source={source} port={port} tool={tool} />}
      {tool?.kind === 'region' && sceneOpen && <OutlineSurface port={port} onDrawn={addRegion} />}
      {tool?.kind === 'mark' && sceneOpen && (
        <>
          <svg width={port.width} height={port.height} style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
            <MarkHandles port={port} source={source} />
          </svg>
          <MarkTool pool={pool} source={source} port={port} mark={tool.mark} />
        </>
      )}
    </>
  )
}

/** What the hand works on: the selected effect while it is placed, and the chosen mask of the list that is open. */
function useEdited(source: PictureSource) {
  const { selectedId, openStep, chosenMaskId, sceneOpen, readOnly } = useScene(
    useShallow(({ selectedId, openStep, chosenMaskId, sceneOpen, readOnly }) => ({
      selectedId,
      openStep,
      chosenMaskId,
      sceneOpen,
      readOnly,
    })),
  )
  const owner = readOnly ? undefined : findOwner(source, selectedId)
  const placing = !sceneOpen && (openStep === 'pattern' || openStep === 'shape')
  const list = editedList(owner, openStep)
  const editing = !sceneOpen && list && (openStep === 'where' || list.list === 'region')
  const mask = editing ? chosenMask(maskList(source, list), chosenMaskId) : undefined
  return { effect: owner && isEffect(owner) ? owner : undefined, placing, list, mask }
}

function HandleLayer({ port, children }: { readonly port: ViewPort; readonly children: React.ReactNode }) {
  return (
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
      {children}
    </Box>
  )
}
