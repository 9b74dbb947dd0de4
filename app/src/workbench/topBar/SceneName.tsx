import { NameInput } from '../../common/NameInput'
import { useScene } from '../../scene/sceneStore'

/** The scene's name; type over it to rename. */
export function SceneName() {
  const name = useScene((state) => state.history?.scene.name ?? '')
  const rename = (next: string): void => void useScene.getState().change('Rename scene', (scene) => void (scene.name = next))
  return <NameInput label="Name of the scene" name={name} longest={120} width={260} onRename={rename} />
}
