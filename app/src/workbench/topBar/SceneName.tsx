import Box from '@mui/material/Box'
import { useState } from 'react'
import { useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'

const LONGEST = 120

/** The scene's name; type over it to rename. */
export function SceneName() {
  const name = useScene((state) => state.history?.scene.name ?? '')
  const [typed, setTyped] = useState<string>()
  const take = () => {
    const next = typed?.trim()
    if (next && next !== name) useScene.getState().change('Rename scene', (scene) => void (scene.name = next))
    setTyped(undefined)
  }
  return (
    <Box
      component="input"
      aria-label="Name of the scene"
      value={typed ?? name}
      maxLength={LONGEST}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur()
        if (event.key === 'Escape') setTyped(undefined)
      }}
      sx={{
        font: 'inherit',
        fontWeight: 650,
        fontSize: 15,
        color: ink.ink,
        minWidth: 60,
        width: `min(${Math.max(8, (typed ?? name).length) + 1}ch, 260px)`,
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
