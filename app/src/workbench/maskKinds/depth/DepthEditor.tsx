import Button from '@mui/material/Button'
import { knowsDistance, noMarks, type DepthMask } from '@welkinar/core'
import { useScene } from '../../../scene/sceneStore'
import type { MaskEditorProps } from '../maskInterface'
import { MaskNumbers } from '../../controls/MaskNumbers'
import { useSource } from '../../../scene/openSceneContext'

/** Distances between which the mask is open; while nothing is known of distances, the way to that. */
export function DepthEditor({ list, mask }: MaskEditorProps<DepthMask>) {
  const source = useSource()
  return (
    <>
      {!knowsDistance(source.marks ?? noMarks, source.depth) && (
        <Button variant="outlined" onClick={() => useScene.getState().set({ panel: 'marks' })} sx={{ justifySelf: 'start' }}>
          Give the scene a depth
        </Button>
      )}
      <MaskNumbers list={list} mask={mask} names={['near', 'far', 'softness']} />
    </>
  )
}
