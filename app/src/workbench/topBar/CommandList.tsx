import Autocomplete from '@mui/material/Autocomplete'
import Box from '@mui/material/Box'
import Dialog from '@mui/material/Dialog'
import TextField from '@mui/material/TextField'
import { KeysOf } from '../../keys/KeysOf'
import type { Command } from '../../keys/commands'

interface CommandListProps {
  readonly commands: readonly Command[]
  readonly open: boolean
  onClose(): void
}

/** Everything the Workbench can do, found by typing; shows the shortcuts too. */
export function CommandList({ commands, open, onClose }: CommandListProps) {
  const possible = commands.filter(({ enabled, run }) => enabled !== false && run)
  return (
    <Dialog
      open={open}
      onClose={onClose}
      fullWidth
      maxWidth="xs"
      slotProps={{ paper: { 'aria-label': 'All commands' } }}
      sx={{ '& .MuiDialog-container': { alignItems: 'flex-start' } }}
    >
      <Box sx={{ p: 3, minHeight: 420 }}>
        <Autocomplete
          open
          disablePortal
          autoHighlight
          forcePopupIcon={false}
          options={possible}
          getOptionLabel={(command) => command.label}
          isOptionEqualToValue={(a, b) => a.id === b.id}
          value={null}
          onChange={(_, command) => {
            onClose()
            command?.run?.()
          }}
          onClose={(_, reason) => reason === 'escape' && onClose()}
          renderInput={(params) => (
            <TextField
              {...params}
              autoFocus
              placeholder="What do you want to do?"
              slotProps={{ ...params.slotProps, htmlInput: { ...params.slotProps?.htmlInput, 'aria-label': 'Find a command' } }}
            />
          )}
          renderOption={({ key, ...props }, command) => (
            <Box component="li" key={key} {...props} sx={{ fontSize: 13 }}>
              <Box sx={{ flex: 1 }}>{command.label}</Box>
              <KeysOf id={command.id} />
            </Box>
          )}
          slotProps={{ listbox: { sx: { maxHeight: 350 } }, paper: { elevation: 0 } }}
        />
      </Box>
    </Dialog>
  )
}
