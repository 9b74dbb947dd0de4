import { findOwner, isEffect, maskList, noMarks, type Frame, type MaskListRef, type PictureSource } from '@welkinar/core'
import { useShallow } from 'zustand/shallow'
import { chosenMask, editedList, useReadOnly, useScene } from '../../../scene/sceneStore'
import { interfaceOf } from '../../kinds'
import { maskInterfaceOf } from '../../maskKinds'
import { addRegion } from '../../actions/regions'
import type { ViewPort } from '../../onPhoto/viewPort'
import { CorrectTool } from './correct/CorrectTool'
import { CropTool } from './CropTool'
import { Dropper } from './Dropper'
import { EffectsHere } from './EffectsHere'
import { HandleLayer } from './HandleLayer'
import { LevelTool } from './LevelTool'
import { MarkHandles } from './MarkHandles'
import { MarkTool } from './MarkTool'
import { MendTool } from './MendTool'
import { OutlineSurface } from '../../onPhoto/OutlineSurface'
import { EffectPatternHandles, MaskPatternHandles } from './PatternHandles'
import { PlaceHandles } from './PlaceHandles'
import { PlaceLens } from './PlaceLens'
import { ReadMarks } from './ReadMarks'
import { RepairHandles } from './RepairHandles'
import { TurnedLayer } from './TurnedLayer'
import { WatchTool } from './WatchTool'
import { useSource } from '../../../scene/openSceneContext'

interface PhotoOverlayProps {
  readonly port: ViewPort
  readonly settled: boolean
}

/** What lies over the photo for the hand: handles of what is chosen, the tool that takes the pointer, and what is asked about a place. */
export function PhotoOverlay({ frame, port, ...shared }: PhotoOverlayProps & { readonly frame: Frame }) {
  const tool = useScene((state) => state.tool)
  if (tool?.kind === 'crop') return <CropTool port={port} frame={frame} />
  if (tool?.kind === 'level') return <LevelTool port={port} />
  return (
    <TurnedLayer frame={frame} port={port}>
      {(turned) => <OnThePhoto {...shared} port={turned} />}
    </TurnedLayer>
  )
}

/** What is placed on the photo itself, and turns with it. */
function OnThePhoto({ port, settled }: PhotoOverlayProps) {
  const source = useSource()
  const { panel, tool } = useScene(useShallow(({ panel, tool }) => ({ panel, tool })))
  const { effect, placing, list, mask } = useEdited(source)
  const { Handles: EffectHandles, Surface: EffectSurface } = effect ? interfaceOf(effect.kind) : {}
  const boxScene = { ...source.photo, marks: source.marks ?? noMarks }
  const turn = source.groundwork?.crop?.turn ?? 0
  const { Handles: MaskHandles, Surface: MaskSurface } = mask ? maskInterfaceOf(mask.kind) : {}
  return (
    <>
      {!tool && (
        <HandleLayer port={port}>
          {panel === 'marks' && <ReadMarks port={port} />}
          {panel === 'marks' && <MarkHandles port={port} />}
          {panel === 'photo' && <RepairHandles port={port} />}
          {effect && placing && <PlaceHandles port={port} effect={effect} marks={source.marks ?? noMarks} />}
          {effect && placing && <EffectPatternHandles port={port} effect={effect} scene={boxScene} turn={turn} />}
          {effect && placing && EffectHandles && <EffectHandles port={port} effect={effect} />}
          {mask && list && <MaskPatternHandles port={port} list={list} mask={mask} scene={boxScene} />}
          {mask && list && MaskHandles && <MaskHandles port={port} list={list} mask={mask} />}
        </HandleLayer>
      )}
      {tool && mask && list && MaskSurface && <MaskSurface port={port} list={list} mask={mask} tool={tool} settled={settled} />}
      {tool && effect && EffectSurface && <EffectSurface port={port} effect={effect} tool={tool} />}
      {effect && <PlaceLens port={port} />}
      {tool?.kind === 'dropper' && <Dropper port={port} tool={tool} />}
      {tool?.kind === 'correct' && <CorrectTool port={port} effect={effect} settled={settled} />}
      {tool?.kind === 'watch' && <WatchTool port={port} />}
      {tool?.kind === 'mend' && panel === 'photo' && <MendTool port={port} />}
      {tool?.kind === 'region' && panel === 'marks' && <OutlineSurface port={port} onDrawn={addRegion} />}
      {tool?.kind === 'mark' && panel === 'marks' && (
        <>
          <svg width={port.width} height={port.height} style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
            <MarkHandles port={port} />
          </svg>
          <MarkTool port={port} mark={tool.mark} />
        </>
      )}
      <EffectsHere port={port} />
    </>
  )
}

/** What the hand works on: the selected effect while it is placed, and the chosen mask of the list that is open. */
function useEdited(source: PictureSource) {
  const { selectedId, openStep, chosenMaskId, panel } = useScene(
    useShallow(({ selectedId, openStep, chosenMaskId, panel }) => ({
      selectedId,
      openStep,
      chosenMaskId,
      panel,
    })),
  )
  const readOnly = useReadOnly()
  const owner = readOnly ? undefined : findOwner(source, selectedId)
  const placing = panel === 'steps' && (openStep === 'pattern' || openStep === 'shape')
  const list = editedList(owner, openStep)
  const editing = panel === 'steps' && list && (openStep === 'where' || list.list === 'region')
  const outer = editing ? chosenMask(maskList(source, list), chosenMaskId, source.shared) : undefined
  const effect = owner && isEffect(owner) ? owner : undefined
  // Of a shared mask the hand works on what is within it.
  if (outer?.kind !== 'shared' || outer.of === null) return { effect, placing, list, mask: outer }
  const within: MaskListRef = { owner: outer.of, list: 'where' }
  return { effect, placing, list: within, mask: chosenMask(maskList(source, within), chosenMaskId) }
}
