import Button from '@mui/material/Button'
import type { Effect } from '@welkinar/core'
import { Link, useParams } from 'react-router'

/** To the screen where a field is made at full size. */
export function StudioLink({ effect }: { readonly effect: Effect }) {
  const { id = '' } = useParams()
  if (effect.kind !== 'customField') return null
  return (
    <Button variant="outlined" component={Link} to={`/scene/${id}/field/${effect.id}`} sx={{ justifySelf: 'start' }}>
      Open the Field studio
    </Button>
  )
}
