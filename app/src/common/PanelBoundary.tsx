import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { Component, type ReactNode } from 'react'
import { ink } from '../theme'
import { isRenewed } from './renewed'

interface PanelBoundaryProps {
  /** What stands in it, in words that can begin a sentence. */
  readonly name: string
  readonly children: ReactNode
  /** Stores what is not stored yet. */
  save(): Promise<unknown>
}

interface PanelBoundaryState {
  readonly error: unknown
}

/** Keeps a fault to one panel: what happened is said in its place, and all else goes on. Code that could not be loaded is loaded with the page anew, once all is stored. */
export class PanelBoundary extends Component<PanelBoundaryProps, PanelBoundaryState> {
  override state: PanelBoundaryState = { error: undefined }

  static getDerivedStateFromError(error: unknown): PanelBoundaryState {
    return { error: error ?? new Error('unknown') }
  }

  override render(): ReactNode {
    const { error } = this.state
    const { name, children, save } = this.props
    if (error === undefined) return children
    const renewed = isRenewed(error)
    const again = () => {
      if (!renewed) return this.setState({ error: undefined })
      // If it cannot be stored, the browser asks before it goes.
      void save().finally(() => location.reload())
    }
    return (
      <Box
        role="alert"
        sx={{ p: 4, display: 'grid', gap: 3, alignContent: 'start', bgcolor: ink.paper, minWidth: 0, maxWidth: 320, overflow: 'auto' }}
      >
        <Box>
          {renewed
            ? `${name} could not be loaded: Welkinar was renewed since this page was opened, or the server cannot be reached.`
            : `${name} could not be shown: ${error instanceof Error ? error.message : String(error)}`}
        </Box>
        <Button variant="outlined" onClick={again} sx={{ justifySelf: 'start' }}>
          {renewed ? 'Save and load anew' : 'Try again'}
        </Button>
      </Box>
    )
  }
}
