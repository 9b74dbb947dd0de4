import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Tooltip from '@mui/material/Tooltip'
import { ArrowUUpLeft } from '@phosphor-icons/react/dist/csr/ArrowUUpLeft'
import { ArrowUUpRight } from '@phosphor-icons/react/dist/csr/ArrowUUpRight'
import { BookOpen } from '@phosphor-icons/react/dist/csr/BookOpen'
import { Binoculars } from '@phosphor-icons/react/dist/csr/Binoculars'
import { Check } from '@phosphor-icons/react/dist/csr/Check'
import { CircleDashed } from '@phosphor-icons/react/dist/csr/CircleDashed'
import { ListMagnifyingGlass } from '@phosphor-icons/react/dist/csr/ListMagnifyingGlass'
import { Pause } from '@phosphor-icons/react/dist/csr/Pause'
import { Play } from '@phosphor-icons/react/dist/csr/Play'
import { SidebarSimple } from '@phosphor-icons/react/dist/csr/SidebarSimple'
import { SquaresFour } from '@phosphor-icons/react/dist/csr/SquaresFour'
import { memo, useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { NARROW } from '../../common/useNarrow'
import { KeysDialog } from '../../keys/KeysDialog'
import { useHint, useStrokeInWords } from '../../keys/keymap'
import { useKeys } from '../../keys/listener'
import { togglePanel, useScene } from '../../scene/sceneStore'
import { isKept } from '../../storage/database'
import type { Compare, Panel } from '../../scene/viewState'
import { ink, weight } from '../../theme'
import { CommandIcon } from '../../keys/CommandIcon'
import { CommandList } from './CommandList'
import type { Command } from '../../keys/commands'
import { SceneName } from './SceneName'
import { StepsList } from './StepsList'
import { ZoomMenu } from './ZoomMenu'

/** Where there is room for all names and a long name of the scene. */
const ROOMY = '@media (min-width: 1400px)'

interface TopBarProps {
  readonly commands: readonly Command[]
}

/** Scene name, undo and redo, how the picture is seen, and the way out. */
export const TopBar = memo(function TopBar({ commands }: TopBarProps) {
  const [listOpen, setListOpen] = useState(false)
  const [keysOpen, setKeysOpen] = useState(false)
  useKeys([
    { id: 'commands', inTexts: true, run: () => setListOpen(true) },
    { id: 'keys', run: () => setKeysOpen(true) },
  ])
  const listHint = useHint('All commands', 'commands')
  const trialsHint = useHint('Variants of the picture, side by side', 'trials')
  const recipesHint = useHint('Weather, light and finish together, on this photo', 'recipes')
  const command = (id: string) => commands.find((one) => one.id === id)
  const sceneId = useScene((state) => state.history?.scene.id)
  const undoes = useScene(({ history }) => history?.entries[history.position - 1]?.label)
  const redoes = useScene(({ history }) => history?.entries[history.position]?.label)
  return (
    <Box
      component="header"
      sx={{
        flex: 'none',
        minHeight: 48,
        px: 3,
        py: 1,
        display: 'flex',
        alignItems: 'center',
        gap: '6px',
        [NARROW]: { flexWrap: 'wrap' },
        '& .MuiToggleButton-root': { px: '8px' },
        bgcolor: ink.paper,
        borderBottom: `1px solid ${ink.rule}`,
      }}
    >
      <Button component={Link} to="/" variant="text" sx={{ fontWeight: weight.strong }}>
        Shelf
      </Button>
      <Box sx={{ width: '1px', height: 20, bgcolor: ink.rule }} />
      <SceneName />
      <SavedMark />
      <Box sx={{ flex: 1 }} />
      <CommandIcon command={command('undo')} icon={<ArrowUUpLeft size={18} />} what={undoes} />
      <StepsList />
      <CommandIcon command={command('redo')} icon={<ArrowUUpRight size={18} />} what={redoes} />
      {/* Where there is no room for it, by its key and in the list of commands. */}
      <Box sx={{ display: { xs: 'none', lg: 'block' } }}>
        <CommandIcon command={command('correct')} icon={<CircleDashed size={18} />} />
      </Box>
      <Box sx={{ display: 'flex' }}>
        <PanelToggle panel="photo" label="Photo" hint="Crop, straighten, tone, noise, repairs" />
        <PanelToggle panel="marks" label="Marks" hint="Lights, horizon, centre of interest, depth" />
        <WatchToggle />
      </Box>
      <PlayToggle />
      <CompareChoice />
      <ZoomMenu commands={commands} />
      <Tooltip title={listHint}>
        <IconButton aria-label="All commands" onClick={() => setListOpen(true)} sx={{ color: ink.ink, borderRadius: '3px' }}>
          <ListMagnifyingGlass size={18} />
        </IconButton>
      </Tooltip>
      <WayTo to={`/scene/${sceneId}/recipes`} label="Recipes" hint={recipesHint} icon={<BookOpen size={18} />} />
      <WayTo to={`/scene/${sceneId}/trials`} label="Trials" hint={trialsHint} icon={<SquaresFour size={18} />} />
      <Button component={Link} to={`/scene/${sceneId}/export`} variant="contained" sx={{ flex: 'none', px: '10px' }}>
        Export
      </Button>
      <CommandIcon command={command('panel')} icon={<SidebarSimple size={18} mirrored />} />
      <CommandList commands={[...commands, keysCommand(() => setKeysOpen(true))]} open={listOpen} onClose={() => setListOpen(false)} />
      <KeysDialog commands={commands} open={keysOpen} onClose={() => setKeysOpen(false)} />
    </Box>
  )
})

interface WayToProps {
  readonly to: string
  readonly label: string
  readonly hint: string
  readonly icon: ReactNode
}

/** The way to another screen of the scene: by its name where there is room for it. */
function WayTo({ to, label, hint, icon }: WayToProps) {
  return (
    <Tooltip describeChild title={hint}>
      <Button component={Link} to={to} aria-label={label} variant="outlined" sx={{ flex: 'none', px: '10px', minWidth: 0 }}>
        <Box component="span" sx={{ display: 'none', [ROOMY]: { display: 'inline' } }}>
          {label}
        </Box>
        <Box component="span" aria-hidden sx={{ display: 'flex', [ROOMY]: { display: 'none' } }}>
          {icon}
        </Box>
      </Button>
    </Tooltip>
  )
}

const keysCommand = (run: () => void): Command => ({ id: 'keys', label: 'Keys: all of them, and which they are to be', run })

/** Opens a panel of the scene itself. */
function PanelToggle({ panel, label, hint }: { readonly panel: Panel; readonly label: string; readonly hint: string }) {
  const open = useScene((state) => state.panel === panel && state.panelOpen && state.adding === undefined)
  const title = useHint(hint, panel === 'photo' ? 'photo' : 'scene')
  return (
    <Tooltip describeChild title={title}>
      <ToggleButton value={panel} size="small" selected={open} onChange={() => togglePanel(panel)}>
        {label}
      </ToggleButton>
    </Tooltip>
  )
}

/** Opens the watch column at the left of the photo. */
function WatchToggle() {
  const open = useScene((state) => state.watchOpen)
  return (
    <Tooltip describeChild title={useHint('Tones, clipping, colour under the pointer, watchpoints', 'watch')}>
      <ToggleButton
        value="watch"
        size="small"
        selected={open}
        onChange={() => useScene.getState().set({ watchOpen: !open })}
        aria-label="Watch"
      >
        <Binoculars size={17} />
      </ToggleButton>
    </Tooltip>
  )
}

/** Lets the patterns move in the picture. */
function PlayToggle() {
  const playing = useScene((state) => state.playing)
  const label = playing ? 'Rest' : 'Play'
  return (
    <Tooltip describeChild title={useHint('Lets the weather move in the picture', 'play')}>
      <ToggleButton
        value="play"
        size="small"
        selected={playing}
        aria-label={label}
        onChange={() => useScene.getState().set({ playing: !playing })}
      >
        {playing ? <Pause size={16} /> : <Play size={16} />}
      </ToggleButton>
    </Tooltip>
  )
}

const compareChoices = [
  { value: 'after', label: 'After', hint: 'The picture.' },
  { value: 'split', label: 'Split', hint: 'What it is compared with at the left of a divider' },
  { value: 'before', label: 'Before', hint: 'The photo as it came, or what was chosen to compare with' },
] as const

function CompareChoice() {
  const compare = useScene((state) => state.compare)
  const holding = useScene((state) => state.holdingBefore)
  const [before, without] = [useStrokeInWords('hold-before'), useStrokeInWords('hold-without')]
  const splitHint = useHint(compareChoices[1].hint, 'split')
  const hints = {
    after:
      before && without
        ? `The picture. Hold ${before} to see what came before, ${without} to see it without the selected effect.`
        : 'The picture.',
    split: splitHint,
    before: compareChoices[2].hint,
  }
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      aria-label="Compare"
      value={holding ? 'before' : compare}
      onChange={(_, next: Compare | null) => next && useScene.getState().set({ compare: next })}
    >
      {compareChoices.map(({ value, label }) => (
        <ToggleButton key={value} value={value} title={hints[value]}>
          {label}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  )
}

function SavedMark() {
  const { is } = useScene((store) => store.life)
  const saved = isKept ? 'saved' : 'not kept'
  const words = { closed: saved, opening: saved, open: saved, saving: 'saving …', trouble: 'not saved', 'reading only': 'read only' }
  const isSaved = words[is] === 'saved'
  return (
    <Box
      // Only trouble is read out: it would speak at every change.
      role={is === 'reading only' || is === 'trouble' ? 'status' : undefined}
      data-saved={is === 'open'}
      title={words[is]}
      // In a narrow window only what is not as it should be takes room, in one of middle width that all is well only a sign.
      sx={{ color: ink.secondary, whiteSpace: 'nowrap', ...(isSaved && { display: { xs: 'none', lg: 'block' } }) }}
    >
      {isSaved && (
        <Box component="span" sx={{ display: { xs: 'flex', xl: 'none' } }}>
          <Check size={16} aria-hidden />
        </Box>
      )}
      <Box component="span" sx={isSaved ? { display: { xs: 'none', xl: 'inline' } } : undefined}>
        {words[is]}
      </Box>
    </Box>
  )
}
