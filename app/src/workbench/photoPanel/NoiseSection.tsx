import Box from '@mui/material/Box'
import { noGroundwork, noiseSchema, type PictureSource } from '@welkinar/core'
import { SchemaNumber } from '../../common/SchemaNumber'
import { useScene } from '../../scene/sceneStore'
import { Hint, Section } from '../scenePanel/Section'
import { twoColumns } from '../steps/FieldControls'

const kinds = ['luminance', 'colour'] as const

/** Noise that is taken out of the photo. */
export function NoiseSection({ source }: { readonly source: PictureSource }) {
  const { noise } = source.groundwork ?? noGroundwork
  const { change } = useScene.getState()
  return (
    <Section title="Noise">
      <Box sx={twoColumns}>
        {kinds.map((kind) => (
          <SchemaNumber
            key={kind}
            schema={noiseSchema.shape[kind]}
            value={noise[kind]}
            start={0}
            onChange={(value, gesture, label) =>
              change(`Photo: ${label}`, ({ groundwork }) => void (groundwork.noise[kind] = value), gesture && `photo ${gesture}`)
            }
          />
        ))}
      </Box>
      <Hint>Judge it pixel for pixel: Q shows the photo at 1:1.</Hint>
    </Section>
  )
}
