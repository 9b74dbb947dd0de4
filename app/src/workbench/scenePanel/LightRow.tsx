import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import OutlinedInput from '@mui/material/OutlinedInput'
import { hexFromRgb, lightSchema, sceneGraph, type LightMark } from '@welkinar/core'
import { ColourField } from '../controls/ColourField'
import { SchemaNumber } from '../controls/SchemaNumber'
import { showProblem } from '../../common/notices'
import { useScene } from '../../scene/sceneStore'
import { useNameField } from '../../common/useNameField'
import { ink } from '../../theme'
import { usePool, useSource } from '../../scene/openSceneContext'
import { TwoColumns } from '../../common/TwoColumns'

interface LightRowProps {
  readonly light: LightMark
}

/** One light of the scene: name, colour, strength and reach. */
export function LightRow({ light }: LightRowProps) {
  const pool = usePool()
  const source = useSource()
  const change = (label: string, edit: (light: LightMark) => void, gesture?: string) =>
    useScene.getState().change(
      label,
      ({ marks }) => {
        const target = marks.lights.find(({ id }) => id === light.id)
        if (target) edit(target)
      },
      gesture && `${light.id} ${gesture}`,
    )
  const field = useNameField(light.name, (name) => change('Rename light', (target) => void (target.name = name)))
  const pick = () => {
    pool
      .measureLight(sceneGraph(source, { kind: 'photo' }), source.photo, light.x, light.y)
      .then(({ colour, radius }) => change('Pick the light', (target) => Object.assign(target, { colour: hexFromRgb(colour), radius })))
      .catch((error: unknown) => showProblem(error, 'Reading the light'))
  }
  return (
    <Box role="group" aria-label={light.name} sx={{ display: 'grid', gap: 1, borderTop: `1px solid ${ink.rule}`, pt: 2 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        <OutlinedInput {...field} inputProps={{ 'aria-label': 'Name of the light', maxLength: 80 }} sx={{ flex: 1 }} />
      </Box>
      <ColourField
        label={`Colour of ${light.name}`}
        value={light.colour}
        onChange={(hex, gesture) => change('Colour of the light', (target) => void (target.colour = hex), gesture && 'colour')}
      />
      <TwoColumns>
        {(['strength', 'radius'] as const).map((key) => (
          <SchemaNumber
            key={key}
            schema={lightSchema.shape[key]}
            value={Number(light[key].toFixed(1))}
            start={key === 'strength' ? 100 : Number(light.radius.toFixed(1))}
            onChange={(value, gesture, label) => change(`Light: ${label}`, (target) => void (target[key] = value), gesture)}
          />
        ))}
      </TwoColumns>
      <Box sx={{ display: 'flex', gap: 2 }}>
        <Button variant="outlined" onClick={pick}>
          Pick from the photo
        </Button>
        <Button
          variant="text"
          onClick={() =>
            useScene
              .getState()
              .change('Remove light', ({ marks }) => void (marks.lights = marks.lights.filter(({ id }) => id !== light.id)))
          }
        >
          Remove
        </Button>
      </Box>
    </Box>
  )
}
