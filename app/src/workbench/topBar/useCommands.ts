import { useMemo } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useNavigate } from 'react-router'
import { changeEffect, useScene, type MaskView } from '../../scene/sceneStore'
import { removeEffect } from '../depthLine/EffectCard'
import { stepEffect } from '../depthLine/moveEffect'
import { openRecipe, saveRecipe } from '../recipes'
import type { Command } from './commands'

const ZOOM_STEP = 1.25
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
  const keys = commands.flatMap((command) => command.keys ?? [])
  useHotkeys(
    keys,
    (_, { hotkey }) => {
      const command = commands.find(({ keys: own }) => own === hotkey)
      if (command && command.enabled !== false) command.run()
    },
    { preventDefault: true, enableOnFormTags: true, ignoreEventWhen: isTyping },
    [commands],
  )
  useHoldBefore()
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
  const zoomBy = (factor: number): void => {
    const { place, shownZoom } = useScene.getState()
    set({ place: { ...place, zoom: Math.min(16, Math.max(0.02, shownZoom * factor)) } })
  }
  const onSelected = (run: (id: string) => void): Pick<Command, 'enabled' | 'run'> => ({
    enabled: selectedId !== undefined,
    run: () => selectedId && run(selectedId),
  })
  return [
    { id: 'undo', label: 'Undo', keys: 'mod+z', keysShown: 'Ctrl Z', enabled: canUndo, run: undo },
    { id: 'redo', label: 'Redo', keys: 'mod+shift+z', keysShown: 'Ctrl Shift Z', enabled: canRedo, run: redo },
    {
      id: 'fit',
      label: 'See the whole photo',
      keys: 'w',
      keysShown: 'W',
      run: () => set({ place: { ...useScene.getState().place, zoom: 'fit' } }),
    },
    {
      id: 'one',
      label: 'See it pixel for pixel (1:1)',
      keys: 'q',
      keysShown: 'Q',
      run: () => set({ place: { ...useScene.getState().place, zoom: 1 / window.devicePixelRatio } }),
    },
    { id: 'in', label: 'Zoom in', keys: 'equal', keysShown: '+', run: () => zoomBy(ZOOM_STEP) },
    { id: 'out', label: 'Zoom out', keys: 'minus', keysShown: '−', run: () => zoomBy(1 / ZOOM_STEP) },
    {
      id: 'split',
      label: 'Split: before and after',
      keys: 's',
      keysShown: 'S',
      run: () => set({ compare: useScene.getState().compare === 'split' ? 'after' : 'split' }),
    },
    {
      id: 'mask',
      label: 'Show the mask: grey, hatch, off',
      keys: 'k',
      keysShown: 'K',
      run: () => set({ maskView: nextMaskView[useScene.getState().maskView] }),
    },
    {
      id: 'switch',
      label: 'Switch the effect on or off',
      keys: 'o',
      keysShown: 'O',
      ...onSelected((id) => changeEffect(id, 'Switch effect', (one) => void (one.on = !one.on))),
    },
    {
      id: 'farther',
      label: 'Move the effect farther',
      keys: 'shift+comma',
      keysShown: 'Shift ,',
      ...onSelected((id) => change('Move effect', (scene) => stepEffect(scene, id, -1))),
    },
    {
      id: 'nearer',
      label: 'Move the effect nearer',
      keys: 'shift+period',
      keysShown: 'Shift .',
      ...onSelected((id) => change('Move effect', (scene) => stepEffect(scene, id, 1))),
    },
    { id: 'remove', label: 'Remove the effect', keys: 'shift+delete', keysShown: 'Shift Delete', ...onSelected(removeEffect) },
    { id: 'save-recipe', label: 'Save the recipe as a file', run: saveRecipe },
    { id: 'open-recipe', label: 'Open a recipe file', run: openRecipe },
    {
      id: 'export',
      label: 'Export the picture',
      keys: 'mod+e',
      keysShown: 'Ctrl E',
      run: () => sceneId && goTo(`/scene/${sceneId}/export`),
    },
    { id: 'shelf', label: 'Back to the Shelf', run: () => goTo('/') },
  ]
}

/** Letters and undo belong to a text field while it has the focus; other keys with Ctrl do not. */
function isTyping(event: KeyboardEvent): boolean {
  const { target } = event
  const inText = target instanceof HTMLInputElement && target.type !== 'range' && target.type !== 'checkbox'
  return inText && !((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'e')
}

/** The photo shows as long as B is down. */
function useHoldBefore(): void {
  const options = { keydown: true, keyup: true, enableOnFormTags: true, ignoreEventWhen: isTyping } as const
  useHotkeys('b', ({ type }) => useScene.getState().set({ holdingBefore: type === 'keydown' }), options, [])
}
