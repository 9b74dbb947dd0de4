import Box from '@mui/material/Box'
import { definitionOf, regionOwner, type Effect, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { AddMask } from './where/AddMask'
import { MaskEditor } from './where/MaskEditor'
import { MaskList } from './where/MaskList'

interface RegionEditorProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly effect: Effect
  readonly step: 'pattern' | 'shape'
}

/** What an effect takes from the photo: a list of masks of its own, beside the one that says where the effect may be. */
export function RegionEditor({ pool, source, effect, step }: RegionEditorProps) {
  const { region } = definitionOf(effect.kind)
  const chosenId = useScene((state) => state.chosenMaskId)
  if (region?.step !== step) return null
  const owner = regionOwner(effect)
  const { masks } = owner.where
  const chosen = masks.find(({ id }) => id === chosenId)
  return (
    <Box
      role="group"
      aria-label={region.label}
      sx={{ borderTop: `1px solid ${ink.rule}`, mt: 1, pt: 3, display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}
    >
      <Box sx={{ fontWeight: 650 }}>{region.label}</Box>
      {masks.length > 0 ? (
        <MaskList source={source} owner={owner} chosen={chosen} />
      ) : (
        <Box sx={{ color: ink.secondary }}>{region.hint}</Box>
      )}
      <AddMask source={source} owner={owner} />
      {chosen && <MaskEditor key={chosen.id} pool={pool} source={source} owner={owner} mask={chosen} />}
    </Box>
  )
}
