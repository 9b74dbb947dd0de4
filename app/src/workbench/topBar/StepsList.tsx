import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import MenuItem from '@mui/material/MenuItem'
import MenuList from '@mui/material/MenuList'
import Popover from '@mui/material/Popover'
import Tooltip from '@mui/material/Tooltip'
import { CaretDown } from '@phosphor-icons/react/dist/csr/CaretDown'
import { framedGraph, frameOfSource, Refusal } from '@welkinar/core'
import { useState } from 'react'
import { useHint } from '../../keys/keymap'
import { useKeys } from '../../keys/listener'
import { goTo, type SceneHistory } from '../../scene/history'
import { useScene } from '../../scene/sceneStore'
import { ink, weight } from '../../theme'
import { LookPicture } from '../pictures/LookPicture'

/** Css px of the picture of a step. */
const PICTURE = { width: 252, height: 168 }

/** Everything that was done to the scene, and what is undone, each a press away. */
export function StepsList() {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const [button, setButton] = useState<HTMLElement | null>(null)
  const hint = useHint('All steps', 'steps')
  useKeys([{ id: 'steps', run: () => setAnchor(button ?? undefined) }])
  return (
    <>
      <Tooltip title={hint}>
        <IconButton
          ref={setButton}
          aria-label="All steps"
          aria-haspopup="dialog"
          onClick={(event) => setAnchor(event.currentTarget)}
          sx={{ color: ink.ink, borderRadius: '3px', width: 24, height: 32, p: 0, mx: '-6px' }}
        >
          <CaretDown size={12} />
        </IconButton>
      </Tooltip>
      {anchor && (
        <Popover
          open
          anchorEl={anchor}
          onClose={() => setAnchor(undefined)}
          anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
          transformOrigin={{ vertical: 'top', horizontal: 'center' }}
          slotProps={{ paper: { role: 'dialog', 'aria-label': 'Steps' } }}
        >
          <Steps onDone={() => setAnchor(undefined)} />
        </Popover>
      )}
    </>
  )
}

/** The list, the newest step on top, beside the picture of the one that is pointed at. */
function Steps({ onDone }: { readonly onDone: () => void }) {
  const history = useScene((state) => state.history)
  const [seen, setSeen] = useState(history?.position ?? 0)
  if (!history) return null
  const { entries, position } = history
  const rows = [...entries.map(({ label }, index) => [index + 1, label] as const).toReversed(), [0, beginningOf(entries)] as const]
  return (
    <Box sx={{ display: 'flex', gap: 3, p: 3 }}>
      <Box sx={{ width: PICTURE.width, flex: 'none' }}>
        <StepPicture history={history} position={seen} />
        <Box sx={{ mt: 2, color: ink.secondary }}>{wordsAt(seen, position)}</Box>
      </Box>
      <MenuList autoFocusItem dense aria-label="Steps" sx={{ width: 252, maxHeight: 'min(420px, 60vh)', overflowY: 'auto', py: 0 }}>
        {rows.map(([at, label]) => (
          <MenuItem
            key={at}
            selected={at === position}
            autoFocus={at === position}
            onMouseEnter={() => setSeen(at)}
            onFocus={() => setSeen(at)}
            onClick={() => {
              useScene.getState().goTo(at)
              onDone()
            }}
            sx={{ gap: 2, color: at > position ? ink.secondary : ink.ink, fontWeight: at === position ? weight.strong : weight.plain }}
          >
            <Box component="span" sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis' }}>
              {label}
            </Box>
            {at > position && 'undone'}
            {at === position && 'now'}
          </MenuItem>
        ))}
      </MenuList>
    </Box>
  )
}

function beginningOf(entries: SceneHistory['entries']): string {
  return (entries[0]?.index ?? 0) > 0 ? 'Before these steps' : 'The beginning'
}

function wordsAt(seen: number, position: number): string {
  const away = Math.abs(seen - position)
  if (away === 0) return 'As it is now'
  const steps = away === 1 ? 'One step' : `${away} steps`
  return seen < position ? `${steps} back` : `${steps} on`
}

/** The whole picture as it is after so many steps. */
function StepPicture({ history, position }: { readonly history: SceneHistory; readonly position: number }) {
  const at = goTo(history, position, 0)
  if (at instanceof Refusal) return <Box sx={{ ...PICTURE, color: ink.secondary }}>{at.reason}</Box>
  const { scene } = at
  return (
    <LookPicture
      {...PICTURE}
      node={framedGraph(scene)}
      photo={scene.photo}
      frame={frameOfSource(scene)}
      label={`The picture: ${wordsAt(position, history.position).toLowerCase()}`}
      awaited
      coarseFirst
    />
  )
}
