import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'

interface ChoiceProps {
  readonly label: string
  readonly value: string
  /** Value and words. */
  readonly options: readonly (readonly [string, string])[]
  onChange(value: string): void
}

/** One of several, with its words above. */
export function Choice({ label, value, options, onChange }: ChoiceProps) {
  return (
    <Box sx={{ minWidth: 0, py: '2px' }}>
      <Box sx={{ mb: '2px' }}>{label}</Box>
      <Select fullWidth value={value} onChange={(event) => onChange(event.target.value)} SelectDisplayProps={{ 'aria-label': label }}>
        {options.map(([option, text]) => (
          <MenuItem key={option} value={option}>
            {text}
          </MenuItem>
        ))}
      </Select>
    </Box>
  )
}
