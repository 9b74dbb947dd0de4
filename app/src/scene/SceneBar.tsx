import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { ArrowUUpLeft } from '@phosphor-icons/react/dist/csr/ArrowUUpLeft'
import { ArrowUUpRight } from '@phosphor-icons/react/dist/csr/ArrowUUpRight'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { NARROW } from '../common/useNarrow'
import { CommandIcon } from '../keys/CommandIcon'
import type { Command } from '../keys/commands'
import { useKeys } from '../keys/listener'
import { ink, weight } from '../theme'
import { useScene } from './sceneStore'

interface SceneBarProps {
  readonly sceneId: string
  readonly title: string
  /** What it is about, beside the heading. */
  readonly about: string
  /** What stands at the right. */
  readonly children: ReactNode
}

/** The bar of a screen that belongs to a scene: the way back to the Workbench, what the screen is, undo and redo. */
export function SceneBar({ sceneId, title, about, children }: SceneBarProps) {
  const { undo, redo } = useScene.getState()
  const canUndo = useScene((state) => (state.history?.position ?? 0) > 0)
  const canRedo = useScene(({ history }) => (history ? history.position < history.entries.length : false))
  const commands: readonly [Command, Command] = [
    { id: 'undo', label: 'Undo', enabled: canUndo, repeats: true, run: undo },
    { id: 'redo', label: 'Redo', enabled: canRedo, repeats: true, run: redo },
  ]
  useKeys(commands)
  return (
    <Box
      component="header"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        px: 4,
        minHeight: 48,
        flex: 'none',
        whiteSpace: 'nowrap',
        [NARROW]: { flexWrap: 'wrap' },
        '& > *': { flexShrink: 0 },
        bgcolor: ink.paper,
        borderBottom: `1px solid ${ink.rule}`,
      }}
    >
      <Button component={Link} to={`/scene/${sceneId}`} variant="text">
        ← Workbench
      </Button>
      {/* The name stands under the heading where there is no room beside it. */}
      <Box sx={{ flex: '1 1 0', minWidth: 0, display: 'flex', flexWrap: 'wrap', alignItems: 'baseline', columnGap: 3, lineHeight: 1.3 }}>
        <Box component="h1" sx={{ m: 0, fontSize: 17, fontWeight: weight.strong }}>
          {title}
        </Box>
        <Box sx={{ color: ink.secondary, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis' }}>{about}</Box>
      </Box>
      <CommandIcon command={commands[0]} icon={<ArrowUUpLeft size={18} />} />
      <CommandIcon command={commands[1]} icon={<ArrowUUpRight size={18} />} />
      {children}
    </Box>
  )
}
