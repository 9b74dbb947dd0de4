import { useMemo } from 'react'
import { useNavigate } from 'react-router'
import {
  brushControls,
  findOwner,
  frameOfSource,
  isEffect,
  limitsOf,
  middleOf,
  nearestNumber,
  newEffect,
  photoPlaceOf,
  type EffectKind,
  type Owner,
} from '@welkinar/core'
import { nextSurround } from '../../common/surround'
import { useKeys } from '../../keys/listener'
import { useBrush } from '../../scene/brush'
import { keepNow } from '../../scene/keepNow'
import { changeOwner, select, togglePanel, useScene } from '../../scene/sceneStore'
import { zoomCommands } from '../../scene/zoomCommands'
import type { MaskView } from '../../scene/viewState'
import { removeEffect } from '../actions/removeEffect'
import { removeGroup } from '../actions/groups'
import { insertEffect, stepEffect } from '../actions/moveEffect'
import { offers } from '../depthLine/offers'
import { turnBrushOf } from '../actions/brushSense'
import { copyLook, pasteLook } from '../actions/copyLook'
import { neighbourMode, setMode } from '../actions/mixModes'
import { reflect } from '../actions/reflect'
import { compareWithNow } from '../view/CompareWith'
import { saveMarks, saveRecipe } from '../../scene/saveRecipe'
import { keepAsRecipe, openRecipe } from '../actions/recipes'
import type { Command } from '../../keys/commands'

const nextMaskView: Record<MaskView, MaskView> = { off: 'grey', grey: 'hatch', hatch: 'off' }

/** All commands of the Workbench, with their shortcuts in force. */
export function useCommands(): readonly Command[] {
  const navigate = useNavigate()
  const canUndo = useScene((state) => (state.history?.position ?? 0) > 0)
  const canRedo = useScene(({ history }) => (history ? history.position < history.entries.length : false))
  const selectedId = useScene((state) => state.selectedId)
  const sceneId = useScene((state) => state.history?.scene.id)
  const commands = useMemo(
    () => buildCommands({ canUndo, canRedo, selectedId, goTo: (path) => void navigate(path), sceneId }),
    [canUndo, canRedo, selectedId, sceneId, navigate],
  )
  useKeys(commands)
  return commands
}

interface CommandContext {
  readonly canUndo: boolean
  readonly canRedo: boolean
  readonly selectedId: string | undefined
  readonly sceneId: string | undefined
  goTo(path: string): void
}

function buildCommands({ canUndo, canRedo, selectedId, sceneId, goTo }: CommandContext): readonly Command[] {
  const { set, change, undo, redo } = useScene.getState()
  const onSelected = (run: (owner: Owner) => void): Pick<Command, 'enabled' | 'run'> => ({
    enabled: selectedId !== undefined,
    run: () => {
      const scene = useScene.getState().history?.scene
      const owner = scene && findOwner(scene, selectedId)
      if (owner) run(owner)
    },
  })
  const brushBy = (factor: number): void =>
    useBrush.getState().set({ size: nearestNumber(useBrush.getState().size * factor, limitsOf(brushControls.size)) })
  return [
    { id: 'undo', label: 'Undo', enabled: canUndo, repeats: true, run: undo },
    { id: 'redo', label: 'Redo', enabled: canRedo, repeats: true, run: redo },
    ...zoomCommands,
    { id: 'surround', label: 'Around the photo: mid-grey, dark, light', run: nextSurround },
    {
      id: 'split',
      label: 'Split: before and after',
      run: () => set({ compare: useScene.getState().compare === 'split' ? 'after' : 'split' }),
    },
    {
      id: 'against',
      label: 'Compare with the picture as it is now',
      run: compareWithNow,
    },
    { id: 'against-photo', label: 'Compare with the photo again', run: () => set({ against: undefined }) },
    {
      id: 'play',
      label: 'Let the weather move, or rest',
      run: () => set({ playing: !useScene.getState().playing }),
    },
    {
      id: 'mask',
      label: 'Show the mask: grey, hatch, off',
      run: () => set({ maskView: nextMaskView[useScene.getState().maskView] }),
    },
    {
      id: 'switch',
      label: 'Switch the effect on or off',
      ...onSelected(({ id }) => changeOwner(id, 'Switch effect', (one) => void (one.on = !one.on))),
    },
    {
      id: 'farther',
      label: 'Move the effect farther',
      ...onSelected(({ id }) => change('Move effect', (scene) => stepEffect(scene, id, -1))),
    },
    {
      id: 'nearer',
      label: 'Move the effect nearer',
      ...onSelected(({ id }) => change('Move effect', (scene) => stepEffect(scene, id, 1))),
    },
    {
      id: 'reflect',
      label: 'Reflect the effect in the water',
      ...onSelected((owner) => {
        const scene = useScene.getState().history?.scene
        if (scene && isEffect(owner)) reflect(owner, scene)
      }),
    },
    {
      id: 'remove',
      label: 'Remove the effect',
      ...onSelected((owner) => (isEffect(owner) ? removeEffect(owner.id) : removeGroup(owner.id))),
    },
    {
      id: 'mix-next',
      label: 'Next mix mode',
      ...onSelected((owner) => setMode(owner, neighbourMode(owner.mix.mode, 1))),
    },
    {
      id: 'mix-before',
      label: 'Mix mode before',
      ...onSelected((owner) => setMode(owner, neighbourMode(owner.mix.mode, -1))),
    },
    { id: 'copy-look', label: 'Copy the look of the effect', ...onSelected((owner) => isEffect(owner) && copyLook(owner)) },
    { id: 'paste-look', label: 'Paste the look onto the effect', ...onSelected((owner) => isEffect(owner) && pasteLook(owner)) },
    { id: 'brush-smaller', label: 'Smaller brush', repeats: true, run: () => brushBy(1 / 1.15) },
    { id: 'brush-larger', label: 'Larger brush', repeats: true, run: () => brushBy(1.15) },
    {
      id: 'eraser',
      label: 'Brush or eraser',
      run: () => useBrush.getState().set({ erase: !useBrush.getState().erase }),
    },
    { id: 'brush-turn', label: 'Painting: only here or not here', ...onSelected(turnBrushOf) },
    {
      id: 'scene',
      label: 'Scene marks: lights, horizon, centre of interest, depth',
      run: () => togglePanel('marks'),
    },
    {
      id: 'photo',
      label: 'The photo itself: crop, straighten, tone, noise, repairs',
      run: () => togglePanel('photo'),
    },
    toggled('watch', 'Show or hide the watch column', 'watchOpen'),
    toggled('clipped', 'Mark what is newly clipped', 'marksClipped'),
    toggled('mirror', 'Flip the view, for looking', 'mirrored'),
    toggled('blink', 'Blink: the picture and what it is compared with in turn', 'blinking'),
    held('hold-before', 'While held: the photo before', 'holdingBefore'),
    held('hold-without', 'While held: without the selected effect', 'holdingWithout'),
    held('hold-unmasked', 'While held: the effect without its mask', 'holdingUnmasked'),
    held('hold-more', 'While held: the effect at three times its strength', 'exaggerating'),
    {
      id: 'correct',
      label: 'Correct here: drag across a place of the photo',
      run: () =>
        set({ tool: useScene.getState().tool?.kind === 'correct' ? undefined : { kind: 'correct' }, adding: undefined, panel: 'steps' }),
    },
    { id: 'crop', label: 'Crop the photo', ...toolOfPhoto('crop') },
    { id: 'level', label: 'Straighten by a line on the photo', ...toolOfPhoto('level') },
    { id: 'mend', label: 'Mend a spot of the photo', ...toolOfPhoto('mend') },
    {
      id: 'effects-here',
      label: 'Which effects change the middle of the view (on the photo: press with Alt)',
      run: () => {
        const { place, history } = useScene.getState()
        if (!history) return
        const frame = frameOfSource(history.scene)
        const { x, y } = place.zoom === 'fit' ? middleOf(frame) : { x: place.centreX, y: place.centreY }
        set({ askedAt: photoPlaceOf(frame, { x, y }) })
      },
    },
    {
      id: 'panel',
      label: 'Show or hide the panel at the right',
      run: () => set({ panelOpen: !useScene.getState().panelOpen, adding: undefined }),
    },
    {
      id: 'line',
      label: 'Show or fold the depth line',
      run: () => set({ lineOpen: !useScene.getState().lineOpen }),
    },
    {
      id: 'tool-off',
      label: 'Put the tool away',
      run: () => set({ tool: undefined, adding: undefined }),
    },
    { id: 'save-recipe', label: 'Save the recipe as a file', run: saveRecipe },
    { id: 'save-marks', label: 'Save marks and groundwork as a file', run: saveMarks },
    { id: 'open-recipe', label: 'Open a recipe file', run: openRecipe },
    {
      id: 'export',
      label: 'Export the picture',
      inTexts: true,
      run: () => sceneId && goTo(`/scene/${sceneId}/export`),
    },
    {
      id: 'keep-state',
      label: 'Keep the picture as it is now, as a state',
      run: () => {
        const { history } = useScene.getState()
        if (history) keepNow(history.scene, () => goTo(`/scene/${history.scene.id}/trials?kept`))
      },
    },
    { id: 'trials', label: 'Trials: variants side by side', run: () => sceneId && goTo(`/scene/${sceneId}/trials`) },
    { id: 'recipes', label: 'Recipes: on this photo', run: () => sceneId && goTo(`/scene/${sceneId}/recipes`) },
    {
      id: 'make-recipe',
      label: 'Make a recipe of this picture',
      run: () => {
        const { history } = useScene.getState()
        if (history) keepAsRecipe({ name: history.scene.name }, () => goTo(`/scene/${history.scene.id}/recipes`))
      },
    },
    { id: 'shelf', label: 'Back to the Shelf', run: () => goTo('/') },
    ...offers.map(({ kind, label, look, name }) => ({
      id: `add ${kind} ${look}`,
      label: `Add ${label}: ${name}`,
      run: () => addLook(kind, look),
    })),
  ]
}

/** A command that switches something in the view on and off. */
function toggled(id: string, label: string, what: 'watchOpen' | 'marksClipped' | 'mirrored' | 'blinking'): Command {
  return { id, label, run: () => useScene.getState().set({ [what]: !useScene.getState()[what] }) }
}

/** Something in the view that holds as long as a key is down. */
function held(id: string, label: string, what: 'holdingBefore' | 'holdingWithout' | 'holdingUnmasked' | 'exaggerating'): Command {
  return { id, label, hold: (down) => useScene.getState().set({ [what]: down }) }
}

/** A command that takes a tool of the photo's own panel. */
function toolOfPhoto(kind: 'crop' | 'level' | 'mend'): Pick<Command, 'run'> {
  return {
    run() {
      const { set, place } = useScene.getState()
      const inView = kind === 'crop' ? { place: { ...place, zoom: 'fit' as const } } : {}
      set({ panel: 'photo', panelOpen: true, adding: undefined, tool: { kind }, ...inView })
    },
  }
}

/** Adds a look where it usually lies, and selects it. */
function addLook(kind: EffectKind, look: string): void {
  const scene = useScene.getState().history?.scene
  if (!scene) return
  const made = newEffect(scene.photo, { kind, look, marks: scene.marks, frame: frameOfSource(scene), id: crypto.randomUUID() })
  if (useScene.getState().change(`Add ${look}`, (draft) => insertEffect(draft, made))) select(made.id)
}
