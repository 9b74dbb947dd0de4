import Button from '@mui/material/Button'
import type { DepthMask } from '@welkinar/core'
import { useScene } from '../../../../scene/sceneStore'
import type { MaskEditorProps } from '../MaskEditor'
import { MaskNumbers } from '../MaskNumbers'

/** Distances between which the mask is open; without a depth picture, the way to one. */
export function DepthEditor({ source, owner, mask }: MaskEditorProps<DepthMask>) {
  return (
    <>
      {!source.depth && (
        <Button variant="outlined" onClick={() => useScene.getState().set({ sceneOpen: true })} sx={{ justifySelf: 'start' }}>
          Give the scene a depth picture
        </Button>
      )}
      <MaskNumbers source={source} owner={owner} mask={mask} names={['near', 'far', 'softness']} />
    </>
  )
}
