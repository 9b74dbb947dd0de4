import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useScene } from '../../scene/sceneStore'
import { FrameSection } from './FrameSection'
import { NoiseSection } from './NoiseSection'
import { RepairSection } from './RepairSection'
import { ToneSection } from './ToneSection'
import { weight } from '../../theme'

/** What is done to the photo itself before all effects: its frame, spots in it, its light and colour, its noise. */
export function PhotoPanel() {
  return (
    <>
      <Box sx={{ px: 4, pt: 4, pb: 3, display: 'flex', alignItems: 'baseline', gap: 2 }}>
        <Box component="h2" sx={{ m: 0, fontSize: 17, fontWeight: weight.strong, flex: 1 }}>
          Photo
        </Box>
        <Button variant="outlined" onClick={() => useScene.getState().set({ panel: 'steps', tool: undefined })}>
          Done
        </Button>
      </Box>
      <FrameSection />
      <ToneSection />
      <RepairSection />
      <NoiseSection />
    </>
  )
}
