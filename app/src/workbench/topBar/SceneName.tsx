import Box from '@mui/material/Box'
import type { KeyboardEvent } from 'react'
import { useNameField } from '../../common/useNameField'
import { useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'

const LONGEST = 120

/** The scene's name; type over it to rename. */
export function SceneName() {
  const name = useScene((state) => state.history?.scene.name ?? '')
  const rename = (next: string): void => void useScene.getState().change('Rename scene', (scene) => void (scene.name = next))
  const field = useNameField(name, rename, LONGEST)
  return (
    <Box
      component="input"
      aria-label="Name of the scene"
      {...field}
      maxLength={LONGEST}
      onKeyDown={(event: KeyboardEvent<HTMLInputElement>) => {
        field.onKeyDown(event)
        if (event.key === 'Enter') event.currentTarget.blur()
      }}
      sx={{
        font: 'inherit',
        fontWeight: 650,
        fontSize: 15,
        color: ink.ink,
        minWidth: 60,
        width: `min(${Math.max(8, field.value.length) + 1}ch, 260px)`,
        border: '1px solid transparent',
        borderRadius: '3px',
        bgcolor: 'transparent',
        px: 1,
        py: '3px',
        textOverflow: 'ellipsis',
        '&:hover': { borderColor: ink.rule },
        '&:focus': { bgcolor: '#fff' },
      }}
    />
  )
}
