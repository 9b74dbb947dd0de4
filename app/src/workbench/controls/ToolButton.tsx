import Button from '@mui/material/Button'
import { useScene } from '../../scene/sceneStore'
import type { PhotoTool } from '../../scene/viewState'

interface ToolButtonProps {
  readonly tool: PhotoTool
  readonly label: string
}

/** Takes a tool for the photo, or puts it away. */
export function ToolButton({ tool, label }: ToolButtonProps) {
  const current = useScene((state) => state.tool)
  const held = current !== undefined && JSON.stringify(current) === JSON.stringify(tool)
  return (
    <Button
      variant={held ? 'contained' : 'outlined'}
      aria-pressed={held}
      onClick={() => useScene.getState().set({ tool: held ? undefined : tool })}
    >
      {label}
    </Button>
  )
}
