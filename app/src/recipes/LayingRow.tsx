import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Slider from '@mui/material/Slider'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { NumberField } from '../common/NumberField'
import { ink } from '../theme'
import type { Laying, LayingChoice } from '../workbench/actions/recipes'

interface LayingRowProps {
  readonly choice: LayingChoice
  /** What has no place here, or is missing, of the recipe that is seen. */
  readonly said: readonly string[]
  /** Lays the recipe that is chosen; nothing while none is. */
  readonly onLay: (() => void) | undefined
  /** Whether nothing lies over the photo that a recipe could be laid over or under. */
  readonly isEmpty: boolean
  onChange(choice: LayingChoice): void
}

const strengths = { least: 0, most: 100, whole: false }
const ofStrength = { step: 1, unit: '%' as const }

/** How a recipe is laid on the photo. */
export function LayingRow({ choice, said, onLay, isEmpty, onChange }: LayingRowProps) {
  const setStrength = (strength: number) => onChange({ ...choice, strength })
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 3 }}>
        <Box id="strength">Strength</Box>
        <Slider
          size="small"
          aria-labelledby="strength"
          min={0}
          max={100}
          value={choice.strength}
          onChange={(_, value) => setStrength(value as number)}
          sx={{ width: 90 }}
        />
        <Box sx={{ width: 62 }}>
          <NumberField labelledBy="strength" value={choice.strength} limits={strengths} control={ofStrength} onChange={setStrength} />
        </Box>
      </Box>
      {!isEmpty && (
        <ToggleButtonGroup
          exclusive
          size="small"
          aria-label="Where the recipe goes"
          value={choice.laying}
          onChange={(_, laying: Laying | null) => laying && onChange({ ...choice, laying })}
        >
          <ToggleButton value="in place">In place of all</ToggleButton>
          <ToggleButton value="over">Over</ToggleButton>
          <ToggleButton value="under">Under</ToggleButton>
        </ToggleButtonGroup>
      )}
      <Button variant="contained" disabled={!onLay} onClick={onLay}>
        Lay it on the photo
      </Button>
      {said.length > 0 && (
        <Box component="ul" aria-label="What has no place here" sx={{ flexBasis: '100%', m: 0, pl: 4, color: ink.accent }}>
          {said.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </Box>
      )}
    </>
  )
}
