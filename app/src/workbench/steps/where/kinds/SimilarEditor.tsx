import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { SimilarMask } from '@welkinar/core'
import { changeMask } from '../../../../scene/sceneStore'
import type { MaskEditorProps } from '../MaskEditor'
import { MaskNumbers } from '../MaskNumbers'
import { TonesFrom } from '../TonesFrom'
import { ToolButton } from '../ToolButton'

/** Places that the mask grows from, and how far. */
export function SimilarEditor({ source, owner, mask }: MaskEditorProps<SimilarMask>) {
  return (
    <>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        <ToolButton tool={{ kind: 'tap similar' }} label="Tap places" />
        <Button
          variant="outlined"
          disabled={mask.taps.length === 0}
          onClick={() => changeMask(owner.id, mask, 'Clear places', (target) => void (target.taps = []))}
        >
          Clear
        </Button>
        {mask.taps.map(({ colour }, index) => (
          <Box key={index} aria-hidden sx={{ width: 14, height: 14, bgcolor: colour }} />
        ))}
      </Box>
      <MaskNumbers source={source} owner={owner} mask={mask} names={['reachPlace', 'reachColour']} />
      <TonesFrom source={source} owner={owner} mask={mask} />
    </>
  )
}
