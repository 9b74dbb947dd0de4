import Box from '@mui/material/Box'
import type { ReactNode } from 'react'
import { ink, weight } from '../../theme'

/** One part of the panel: its title, what can be done, and what is in it. */
export function Section({
  title,
  action,
  children,
}: {
  readonly title: string
  readonly action?: ReactNode
  readonly children?: ReactNode
}) {
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{ borderTop: `1px solid ${ink.rule}`, px: 4, py: 3, display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', minHeight: 32 }}>
        <Box component="h3" sx={{ m: 0, flex: 1, fontSize: 13, fontWeight: weight.strong }}>
          {title}
        </Box>
        {action}
      </Box>
      {children}
    </Box>
  )
}

/** A sentence that says what to do. */
export function Hint({ children }: { readonly children: ReactNode }) {
  return <Box sx={{ color: ink.secondary }}>{children}</Box>
}
