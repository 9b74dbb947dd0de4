import Box from '@mui/material/Box'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import { maskContext, maskDefinitionOf, maskList, maskProblem, type MaskListRef } from '@welkinar/core'
import { ink, weight } from '../../../theme'
import { maskInterfaceOf } from '../../maskKinds'
import type { MaskEditorProps } from '../../maskKinds/maskInterface'
import { MaskNumber } from '../../controls/MaskNumbers'
import { changeMask, chosenMask, useScene } from '../../../scene/sceneStore'
import { AddMask } from './AddMask'
import { MaskList } from './MaskList'
import { useSource } from '../../../scene/openSceneContext'
import { TwoColumns } from '../../../common/TwoColumns'

/** The chosen mask: what its kind has, and what every mask has. */
export function MaskEditor(props: MaskEditorProps) {
  const { list, mask } = props
  const source = useSource()
  const { label } = maskDefinitionOf(mask.kind)
  const { Editor: KindEditor } = maskInterfaceOf(mask.kind)
  const problem = maskProblem(mask, maskContext(source, list.owner))
  return (
    <Box
      role="group"
      aria-label={`${label} mask`}
      sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2, borderTop: `1px solid ${ink.rule}`, pt: 3, mt: 1 }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <Box component="h4" sx={{ m: 0, flex: 1, fontSize: 13, fontWeight: weight.strong }}>
          {label}
        </Box>
        <FormControlLabel
          control={
            <Switch
              checked={mask.invert}
              onChange={(_, invert) => changeMask(list, mask, 'Mask: invert', (target) => void (target.invert = invert))}
            />
          }
          label="Invert"
          labelPlacement="start"
          slotProps={{ typography: { sx: { mr: 2 } } }}
          sx={{ m: 0 }}
        />
      </Box>
      {problem && (
        <Box role="status" sx={{ borderLeft: `3px solid ${ink.accent}`, pl: 2 }}>
          {problem}
        </Box>
      )}
      <KindEditor {...props} />
      {mask.kind === 'shared' && mask.of !== null && <WithinShared id={mask.of} />}
      <TwoColumns>
        {(['feather', 'strength', 'grow', 'edges'] as const).map((key) => (
          <MaskNumber key={key} list={list} mask={mask} name={key} />
        ))}
      </TwoColumns>
    </Box>
  )
}

/** The masks that a shared one is made of, to be mended for all that read it. */
function WithinShared({ id }: { readonly id: string }) {
  const source = useSource()
  const chosenId = useScene((state) => state.chosenMaskId)
  const list: MaskListRef = { owner: id, list: 'where' }
  const where = maskList(source, list)
  if (!where) return null
  const chosen = chosenMask(where, chosenId)
  return (
    <Box role="group" aria-label="Within the shared mask" sx={{ borderLeft: `2px solid ${ink.rule}`, pl: 2, display: 'grid', gap: 2 }}>
      <MaskList list={list} chosen={chosen} />
      <AddMask list={list} />
      {chosen && <MaskEditor key={chosen.id} list={list} mask={chosen} />}
    </Box>
  )
}
