import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { UserProblem } from '@welkinar/core'
import { isRouteErrorResponse, Link, useRouteError } from 'react-router'
import { isRenewed } from './renewed'

interface ErrorPageProps {
  readonly message?: string
}

/** A full page that says what went wrong and leads back to the Shelf. */
export function ErrorPage({ message }: ErrorPageProps) {
  const error = useRouteError()
  return (
    <Box component="main" sx={{ p: 10, maxWidth: 640 }}>
      <Typography variant="h1" gutterBottom>
        {message ?? explain(error)}
      </Typography>
      <Typography sx={{ mb: 4 }}>Your scenes are still on the Shelf.</Typography>
      {isRenewed(error) ? (
        <Button variant="contained" onClick={() => location.reload()}>
          Load this page anew
        </Button>
      ) : (
        <Button component={Link} to="/" variant="contained">
          To the Shelf
        </Button>
      )}
    </Box>
  )
}

function explain(error: unknown): string {
  if (isRenewed(error))
    return 'A part of Welkinar could not be loaded: it was renewed since this page was opened, or the server cannot be reached.'
  if (error instanceof UserProblem) return error.message
  if (isRouteErrorResponse(error) && error.status === 404) return 'There is no page at this address.'
  return `Something went wrong: ${error instanceof Error ? error.message : String(error)}`
}
