import { noGroundwork, noiseSchema } from '@welkinar/core'
import { SchemaNumber } from '../controls/SchemaNumber'
import { useScene } from '../../scene/sceneStore'
import { Hint, Section } from '../controls/Section'
import { useSource } from '../../scene/openSceneContext'
import { TwoColumns } from '../../common/TwoColumns'

const kinds = ['luminance', 'colour'] as const

/** Noise that is taken out of the photo. */
export function NoiseSection() {
  const source = useSource()
  const { noise } = source.groundwork ?? noGroundwork
  const { change } = useScene.getState()
  return (
    <Section title="Noise">
      <TwoColumns>
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
      </TwoColumns>
      <Hint>Judge it pixel for pixel: Q shows the photo at 1:1.</Hint>
    </Section>
  )
}
