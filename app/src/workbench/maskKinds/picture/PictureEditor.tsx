import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { PictureMask } from '@welkinar/core'
import { showProblem } from '../../../common/notices'
import { changeMask } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import { importPicture } from '../../importPicture'
import type { MaskEditorProps } from '../maskInterface'

/** A grey picture from a file. */
export function PictureEditor({ list, mask }: MaskEditorProps<PictureMask>) {
  const choose = () => {
    importPicture()
      .then((picture) => picture && changeMask(list, mask, 'Picture of the mask', (target) => void (target.picture = picture)))
      .catch((error: unknown) => showProblem(error, 'Opening the picture'))
  }
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
      <Button variant="outlined" onClick={choose}>
        Choose a picture
      </Button>
      <Box sx={{ color: ink.secondary, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{mask.picture?.fileName}</Box>
    </Box>
  )
}
