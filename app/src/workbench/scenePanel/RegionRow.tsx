import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import OutlinedInput from '@mui/material/OutlinedInput'
import { regionSchema, type RegionMark } from '@welkinar/core'
import { SchemaNumber } from '../controls/SchemaNumber'
import { useNameField } from '../../common/useNameField'
import { ink } from '../../theme'
import { changeRegion, removeRegion } from '../actions/regions'
import { TwoColumns } from '../../common/TwoColumns'

const STARTS = { distance: 10, softness: 0 } as const

/** One outlined region: name, distance and how soft its edge is. */
export function RegionRow({ region }: { readonly region: RegionMark }) {
  const { id, name } = region
  const field = useNameField(name, (next) => changeRegion(id, 'Rename region', (one) => void (one.name = next)))
  return (
    <Box role="group" aria-label={name} sx={{ display: 'grid', gap: 1, borderTop: `1px solid ${ink.rule}`, pt: 2 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        <OutlinedInput {...field} inputProps={{ 'aria-label': 'Name of the region', maxLength: 80 }} sx={{ flex: 1 }} />
        <Button variant="text" aria-label={`Remove ${name}`} onClick={() => removeRegion(id)}>
          Remove
        </Button>
      </Box>
      <TwoColumns>
        {(['distance', 'softness'] as const).map((key) => (
          <SchemaNumber
            key={key}
            schema={regionSchema.shape[key]}
            value={region[key]}
            start={STARTS[key]}
            onChange={(value, gesture, label) => changeRegion(id, `Region: ${label}`, (one) => void (one[key] = value), gesture)}
          />
        ))}
      </TwoColumns>
    </Box>
  )
}
