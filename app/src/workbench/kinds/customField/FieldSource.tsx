import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { Choice } from '../../../common/Choice'
import { showProblem } from '../../../common/notices'
import { changeKind, type EffectOf } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import { importPicture } from '../../importPicture'
import type { EffectPanelProps } from '../effectInterface'

const NONE = 'none'

/** The other effect or the picture that a custom field is made from. */
export function FieldSource({ source, effect }: Omit<EffectPanelProps<'customField'>, 'pool'>) {
  const { pattern } = effect.controls
  const set = (label: string, part: Partial<EffectOf<'customField'>['controls']['pattern']>) =>
    changeKind('customField', effect.id, label, ({ controls }) => void Object.assign(controls.pattern, part))
  if (pattern.source === 'effect') {
    const others = source.effects.filter(({ id }) => id !== effect.id)
    return (
      <Choice
        label="Effect"
        value={others.find(({ id }) => id === pattern.of)?.id ?? NONE}
        options={[[NONE, 'Not chosen'], ...others.map(({ id, name }) => [id, name] as const)]}
        onChange={(next) => set('What the field is made from', { of: next === NONE ? null : next })}
      />
    )
  }
  if (pattern.source !== 'picture') return null
  const choose = () => {
    importPicture()
      .then((picture) => picture && set('Picture of the field', { picture }))
      .catch((error: unknown) => showProblem(error, 'Opening the picture'))
  }
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
      <Button variant="outlined" onClick={choose}>
        Choose a picture
      </Button>
      <Box sx={{ color: ink.secondary, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
        {pattern.picture?.fileName ?? 'none yet'}
      </Box>
    </Box>
  )
}
