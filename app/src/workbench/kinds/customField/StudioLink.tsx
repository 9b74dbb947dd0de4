import Button from '@mui/material/Button'
import { Link, useParams } from 'react-router'

/** To the screen where a field is made at full size. */
export function StudioLink({ effectId }: { readonly effectId: string }) {
  const { id = '' } = useParams()
  return (
    <Button variant="outlined" component={Link} to={`/scene/${id}/field/${effectId}`} sx={{ justifySelf: 'start' }}>
      Open the Field studio
    </Button>
  )
}
