import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { SimilarMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import type { MaskEditorProps } from '../maskInterface'
import { MaskNumbers } from '../../controls/MaskNumbers'
import { TonesFrom } from '../../controls/TonesFrom'
import { ToolButton } from '../../controls/ToolButton'

/** Places that the mask grows from, and how far. */
export function SimilarEditor({ list, mask }: MaskEditorProps<SimilarMask>) {
  return (
    <>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        <ToolButton tool={{ kind: 'tap similar' }} label="Tap places" />
        <Button
          variant="outlined"
          disabled={mask.taps.length === 0}
          onClick={() => changeMask(list, mask, 'Clear places', (target) => void (target.taps = []))}
        >
          Clear
        </Button>
        {mask.taps.map(({ colour }, index) => (
          <Box key={index} aria-hidden sx={{ width: 14, height: 14, bgcolor: colour }} />
        ))}
      </Box>
      <MaskNumbers list={list} mask={mask} names={['reachPlace', 'reachColour']} />
      <TonesFrom list={list} mask={mask} />
    </>
  )
}
