import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { definitionOf, maskList, type Effect, type MaskListRef } from '@welkinar/core'
import { chosenMask, useScene } from '../../scene/sceneStore'
import { ink, weight } from '../../theme'
import { AddMask } from './where/AddMask'
import { drawInstead } from '../actions/maskActions'
import { MaskEditor } from './where/MaskEditor'
import { MaskList } from './where/MaskList'
import { MaskViewChoice } from './where/WhereStep'
import { useSource } from '../../scene/openSceneContext'

interface RegionEditorProps {
  readonly effect: Effect
  readonly step: 'pattern' | 'shape'
}

/** What an effect takes from the photo: a list of masks of its own, beside the one that says where the effect may be. */
export function RegionEditor({ effect, step }: RegionEditorProps) {
  const source = useSource()
  const { region } = definitionOf(effect.kind)
  const chosenId = useScene((state) => state.chosenMaskId)
  if (region?.step !== step) return null
  const list: MaskListRef = { owner: effect.id, list: 'region' }
  const masks = maskList(source, list)
  const chosen = chosenMask(masks, chosenId, source.shared)
  return (
    <Box
      role="group"
      aria-label={region.label}
      sx={{ borderTop: `1px solid ${ink.rule}`, mt: 1, pt: 3, display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}
    >
      <Box sx={{ fontWeight: weight.strong }}>{region.label}</Box>
      {chosen ? (
        <>
          <MaskViewChoice hasMasks />
          <MaskList list={list} chosen={chosen} />
        </>
      ) : (
        <Box sx={{ color: ink.secondary }}>{region.hint}</Box>
      )}
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap' }}>
        <AddMask list={list} />
        {masks && masks.masks.length > 1 && (
          <Button variant="text" onClick={() => drawInstead(source, list)}>
            Draw around it instead
          </Button>
        )}
      </Box>
      {chosen && <MaskEditor key={chosen.id} list={list} mask={chosen} />}
    </Box>
  )
}
