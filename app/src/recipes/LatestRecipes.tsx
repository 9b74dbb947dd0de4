import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useLiveQuery } from 'dexie-react-hooks'
import { Link, Navigate } from 'react-router'
import { listScenes } from '../storage/scenes'

/** Recipes on the photo that was worked on last. */
export function LatestRecipes() {
  const scenes = useLiveQuery(listScenes)
  if (!scenes) return null
  const [latest] = scenes
  if (latest) return <Navigate to={`/scene/${latest.id}/recipes`} replace />
  return (
    <Box component="main" sx={{ p: 10, display: 'grid', gap: 4, justifyItems: 'start' }}>
      <h1>Recipes</h1>
      Recipes are shown on a photo of yours, and there is none yet.
      <Button component={Link} to="/" variant="contained">
        Open a photo on the Shelf
      </Button>
    </Box>
  )
}
