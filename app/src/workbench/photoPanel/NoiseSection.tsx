import Box from '@mui/material/Box'
import { controlOf, limitsOf, noGroundwork, noiseSchema, type PictureSource } from '@welkinar/core'
import { NumberControl } from '../../common/NumberControl'
import { useScene } from '../../scene/sceneStore'
import { Hint, Section } from '../scenePanel/Section'
import { twoColumns } from '../steps/FieldControls'

const kinds = ['luminance', 'colour'] as const

/** Noise that is taken out of the photo. */
export function NoiseSection({ source }: { readonly source: PictureSource }) {
  const { noise } = source.groundwork ?? noGroundwork
  return (
    <Section title="Noise">
      <Box sx={twoColumns}>
        {kinds.map((kind) => {
          const schema = noiseSchema.shape[kind]
          const control = controlOf(schema)
          return (
            control && (
              <NumberControl
                key={kind}
                control={control}
                limits={limitsOf(schema)}
                value={noise[kind]}
                start={0}
                onChange={(value, gesture) =>
                  useScene
                    .getState()
                    .change(
                      `Photo: ${control.label}`,
                      ({ groundwork }) => void (groundwork.noise[kind] = value),
                      gesture && `photo ${gesture}`,
                    )
                }
              />
            )
          )
        })}
      </Box>
      <Hint>Judge it pixel for pixel: Q shows the photo at 1:1.</Hint>
    </Section>
  )
}
