import IconButton from '@mui/material/IconButton'
import Tooltip from '@mui/material/Tooltip'
import type { ReactNode } from 'react'
import { useHint } from './keymap'
import { ink } from '../theme'
import type { Command } from './commands'

interface CommandIconProps {
  readonly command: Pick<Command, 'id' | 'label' | 'enabled' | 'run'> | undefined
  readonly icon: ReactNode
  /** What it would do now, behind its words. */
  readonly what?: string | undefined
}

/** A command as a sign; its words and keys are in the hint. */
export function CommandIcon({ command, icon, what }: CommandIconProps) {
  const label = command?.label ?? ''
  const hint = useHint(what ? `${label}: ${what}` : label, command?.id ?? '')
  if (!command) return null
  return (
    <Tooltip describeChild={what !== undefined} title={hint}>
      <span>
        <IconButton
          aria-label={command.label}
          disabled={command.enabled === false}
          onClick={() => command.run?.()}
          sx={{ color: ink.ink, borderRadius: '3px' }}
        >
          {icon}
        </IconButton>
      </span>
    </Tooltip>
  )
}
