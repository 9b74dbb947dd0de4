import { useScene } from '../../../scene/sceneStore'
import type { ViewPort } from '../../onPhoto/viewPort'
import { TapSurface } from '../../onPhoto/TapSurface'
import { ToolHint } from '../../onPhoto/ToolHint'

/** Takes presses on the photo: each place stays in sight in the watch column. */
export function WatchTool({ port }: { readonly port: ViewPort }) {
  return (
    <>
      <TapSurface
        port={port}
        onTap={({ x, y }) =>
          void useScene.getState().change('Set a watchpoint', (scene) => void scene.watchpoints.push({ id: crypto.randomUUID(), x, y }))
        }
      />
      <ToolHint text="Press each place that you want to keep in sight." />
    </>
  )
}
