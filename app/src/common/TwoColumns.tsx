import Box from '@mui/material/Box'
import type { ReactNode } from 'react'

interface TwoColumnsProps {
  readonly children: ReactNode
  /** Where they belong together, by what. */
  readonly label?: string
  readonly gap?: number
}

/** Controls beside one another in two columns of a panel. */
export function TwoColumns({ children, label, gap = 4 }: TwoColumnsProps) {
  return (
    <Box
      {...(label !== undefined && { role: 'group', 'aria-label': label })}
      sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: gap, rowGap: 1 }}
    >
      {children}
    </Box>
  )
}
