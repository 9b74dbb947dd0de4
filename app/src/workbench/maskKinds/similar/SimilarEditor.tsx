import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { SimilarMask } from '@welkinar/core'
import { changeMask } from '../../../scene/sceneStore'
import type { MaskEditorProps } from '../maskInterface'
import { MaskNumbers } from '../../steps/where/MaskNumbers'
import { TonesFrom } from '../../steps/where/TonesFrom'
import { ToolButton } from '../../steps/where/ToolButton'

/** Places that the mask grows from, and how far. */
export function SimilarEditor({ source, list, mask }: MaskEditorProps<SimilarMask>) {
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
      <MaskNumbers source={source} list={list} mask={mask} names={['reachPlace', 'reachColour']} />
      <TonesFrom source={source} list={list} mask={mask} />
    </>
  )
}
