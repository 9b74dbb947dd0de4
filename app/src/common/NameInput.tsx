import Box from '@mui/material/Box'
import type { KeyboardEvent } from 'react'
import { ink, weight } from '../theme'
import { useNameField } from './useNameField'

interface NameInputProps {
  /** What is named, in words. */
  readonly label: string
  readonly name: string
  /** What stands there while there is no name: then nothing may be taken too. */
  readonly placeholder?: string
  readonly longest?: number
  readonly size?: number
  /** Whether it stands back beside a heading. */
  readonly quiet?: boolean
  /** Most px that it takes across. */
  readonly width: number
  onRename(name: string): void
}

/** A name that looks like text until it is pointed at; type over it to rename. */
export function NameInput({ label, name, placeholder, longest = 80, size = 15, quiet = false, width, onRename }: NameInputProps) {
  const field = useNameField(name, onRename, { longest, mayBeEmpty: placeholder !== undefined })
  const shown = field.value || (placeholder ?? '')
  return (
    <Box
      component="input"
      aria-label={label}
      placeholder={placeholder}
      {...field}
      maxLength={longest}
      onKeyDown={(event: KeyboardEvent<HTMLInputElement>) => {
        field.onKeyDown(event)
        if (event.key === 'Enter') event.currentTarget.blur()
      }}
      sx={{
        font: 'inherit',
        fontWeight: quiet ? weight.plain : weight.strong,
        fontSize: size,
        color: quiet ? ink.secondary : ink.ink,
        minWidth: 60,
        width: `min(${Math.max(8, shown.length) + 1}ch, ${width}px)`,
        border: '1px solid transparent',
        borderRadius: '3px',
        bgcolor: 'transparent',
        px: 1,
        py: '3px',
        textOverflow: 'ellipsis',
        '&::placeholder': { color: 'inherit', opacity: 1 },
        '&:hover': { borderColor: ink.rule },
        '&:focus': { bgcolor: ink.white },
      }}
    />
  )
}
