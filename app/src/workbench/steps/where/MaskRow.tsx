import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import IconButton from '@mui/material/IconButton'
import InputBase from '@mui/material/InputBase'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import Switch from '@mui/material/Switch'
import { DotsSixVertical } from '@phosphor-icons/react/dist/csr/DotsSixVertical'
import { maskJoins, type Mask, type MaskJoin, type MaskListRef } from '@welkinar/core'
import { useState } from 'react'
import { ActionMenu } from '../../../common/ActionMenu'
import { changeMask } from '../../../scene/sceneStore'
import { ink, weight } from '../../../theme'
import { chooseMask, maskActions } from '../../actions/maskActions'
import { maskWords } from './whereSummary'
import { useSource } from '../../../scene/openSceneContext'

interface MaskRowProps {
  readonly list: MaskListRef
  readonly mask: Mask
  readonly index: number
  readonly chosen: boolean
}

const joinLabels: Record<MaskJoin, string> = { keep: 'Intersect', add: 'Add', subtract: 'Subtract' }
const joinWords: Record<MaskJoin, string> = {
  keep: 'only what this mask leaves open stays',
  add: 'what this mask leaves open joins the rest',
  subtract: 'what this mask leaves open is taken out',
}

/** One mask of the list: its grip, how it joins, what it is, on or off, and what else can be done with it. */
export function MaskRow({ list, mask, index, chosen }: MaskRowProps) {
  const source = useSource()
  const words = maskWords(mask, source)
  const [renaming, setRenaming] = useState(false)
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: mask.id })
  const setJoin = (value: string) => {
    const join = maskJoins.find((candidate) => candidate === value)
    if (join) changeMask(list, mask, 'Join of the mask', (target) => void (target.join = join))
  }
  const actions = maskActions(source, list, mask, () => setRenaming(true))
  return (
    <Box
      ref={setNodeRef}
      role="listitem"
      style={{ transform: CSS.Translate.toString(transform), transition }}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        minHeight: 36,
        mx: -2,
        px: 1,
        position: 'relative',
        zIndex: isDragging ? 1 : 'auto',
        bgcolor: chosen ? ink.well : isDragging ? ink.raised : 'transparent',
      }}
    >
      <IconButton
        {...attributes}
        {...listeners}
        size="small"
        aria-label={`Move mask ${index + 1}`}
        sx={{ p: '3px 0', color: ink.secondary, cursor: 'grab', touchAction: 'none' }}
      >
        <DotsSixVertical size={16} />
      </IconButton>
      <Select
        value={mask.join}
        onChange={(event) => setJoin(event.target.value)}
        SelectDisplayProps={{ 'aria-label': `How mask ${index + 1} joins` }}
        IconComponent={NoIcon}
        renderValue={(join) => joinLabels[join]}
        sx={{ width: 68, flex: 'none', '& .MuiSelect-select': { px: '7px !important' } }}
      >
        {maskJoins.map((join) => (
          <MenuItem key={join} value={join}>
            {joinLabels[join]}: {joinWords[join]}
          </MenuItem>
        ))}
      </Select>
      {renaming ? (
        <RenameField list={list} mask={mask} onDone={() => setRenaming(false)} />
      ) : (
        <ButtonBase
          onClick={() => chooseMask(mask)}
          onDoubleClick={() => setRenaming(true)}
          aria-pressed={chosen}
          title={words}
          sx={{
            flex: 1,
            minWidth: 0,
            justifyContent: 'flex-start',
            minHeight: 30,
            px: 1,
            fontWeight: chosen ? weight.strong : weight.plain,
          }}
        >
          <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', opacity: mask.on ? 1 : 0.6 }}>
            {words}
          </Box>
        </ButtonBase>
      )}
      <Switch
        checked={mask.on}
        onChange={(_, on) => changeMask(list, mask, 'Switch mask', (target) => void (target.on = on))}
        slotProps={{ input: { 'aria-label': `Mask ${index + 1}, ${words}, on` } }}
        sx={{ flex: 'none' }}
      />
      <ActionMenu label={`More about mask ${index + 1}`} actions={() => actions} />
    </Box>
  )
}

/** The box itself says that it opens. */
function NoIcon() {
  return null
}

function RenameField({ list, mask, onDone }: { readonly list: MaskListRef; readonly mask: Mask; onDone(): void }) {
  const source = useSource()
  const [typed, setTyped] = useState(mask.name)
  const take = () => {
    const name = typed.trim().slice(0, 80)
    if (name !== mask.name) changeMask(list, mask, 'Rename mask', (target) => void (target.name = name))
    onDone()
  }
  return (
    <InputBase
      autoFocus
      value={typed}
      placeholder={maskWords({ ...mask, name: '' }, source)}
      inputProps={{ 'aria-label': 'Name of the mask', maxLength: 80 }}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => (event.key === 'Enter' ? take() : event.key === 'Escape' && onDone())}
      sx={{ flex: 1, minWidth: 0, px: 1, bgcolor: ink.white, fontSize: 13 }}
    />
  )
}
