import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { PictureReference } from '@welkinar/core'
import { showProblem } from '../../common/notices'
import { ink } from '../../theme'
import { importPicture, type PictureUse } from '../actions/importPicture'

interface ChoosePictureProps {
  readonly picture: PictureReference | null
  readonly use?: PictureUse
  onChoose(picture: PictureReference): void
}

/** A picture from a file of the person's own: its name, and the button that takes another. */
export function ChoosePicture({ picture, use, onChoose }: ChoosePictureProps) {
  const choose = () => {
    importPicture(use)
      .then((chosen) => chosen && onChoose(chosen))
      .catch((error: unknown) => showProblem(error, 'Opening the picture'))
  }
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
      <Button variant="outlined" onClick={choose}>
        Choose a picture
      </Button>
      <Box sx={{ color: ink.secondary, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
        {picture?.fileName ?? 'none yet'}
      </Box>
    </Box>
  )
}
