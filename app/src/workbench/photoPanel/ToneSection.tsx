import Button from '@mui/material/Button'
import {
  adjustControls,
  appliesToAdjusted,
  balanceForGrey,
  linearOf,
  readPath,
  sceneGraph,
  schemaAt,
  startingTone,
  writePath,
  type AdjustControls,
  type PictureSource,
} from '@welkinar/core'
import { original } from 'immer'
import { useMemo } from 'react'
import { DropperButton } from '../controls/ColourField'
import { SchemaNumber } from '../controls/SchemaNumber'
import { useScene } from '../../scene/sceneStore'
import { Section } from '../controls/Section'
import { useSource } from '../../scene/openSceneContext'
import { TwoColumns } from '../../common/TwoColumns'

const light = ['blacks', 'shadows', 'midtones', 'highlights', 'whites', 'contrast', 'exposure'].map((key) => `pattern.${key}`)
const balance = ['warmth', 'tint'].map((key) => `shape.${key}`)
const colour = ['saturation', 'vibrance'].map((key) => `shape.${key}`)
const detail = ['fine', 'fineRadius', 'broad', 'broadRadius'].map((key) => `shape.${key}`)

/** Light and colour of the photo, under all effects. */
export function ToneSection() {
  const source = useSource()
  const { photo, groundwork } = source
  const start = useMemo(() => startingTone(photo), [photo])
  const tone = groundwork?.tone ?? start
  const change = (label: string, alter: (tone: AdjustControls) => void, gesture?: string): void =>
    void useScene.getState().change(
      `Photo: ${label}`,
      (scene) => {
        const next = structuredClone(original(scene.groundwork)?.tone ?? start)
        alter(next)
        // As it came, nothing is to be computed.
        scene.groundwork.tone = JSON.stringify(next) === JSON.stringify(start) ? null : next
      },
      gesture && `photo ${gesture}`,
    )
  const controls = (paths: readonly string[]) =>
    paths
      .filter((path) => appliesToAdjusted(path, tone))
      .map((path) => (
        <SchemaNumber
          key={path}
          schema={schemaAt(adjustControls, path)}
          value={readPath(tone, path)}
          start={Number(readPath(start, path).toFixed(3))}
          onChange={(value, gesture, label) => change(label, (next) => writePath(next, path, value), gesture)}
        />
      ))
  return (
    <>
      <Section
        title="White balance"
        action={
          <DropperButton
            what="Grey"
            tones={sceneGraph({ ...source, ...withoutTone(source) }, { kind: 'groundwork' })}
            onTake={(_hex, taken) => change('White balance', (next) => void Object.assign(next.shape, balanceForGrey(linearOf(taken))))}
          />
        }
      >
        <TwoColumns>{controls(balance)}</TwoColumns>
      </Section>
      <Section
        title="Light and dark"
        action={
          groundwork?.tone && (
            <Button
              variant="text"
              onClick={() => useScene.getState().change('Photo: as it came', (scene) => void (scene.groundwork.tone = null))}
            >
              Reset
            </Button>
          )
        }
      >
        <TwoColumns>{controls(light)}</TwoColumns>
      </Section>
      <Section title="Colour and detail">
        <TwoColumns>{controls([...colour, ...detail])}</TwoColumns>
      </Section>
    </>
  )
}

/** What is grey is asked of the photo before its white balance. */
function withoutTone({ groundwork }: PictureSource): Partial<PictureSource> {
  return groundwork ? { groundwork: { ...groundwork, tone: null } } : {}
}
