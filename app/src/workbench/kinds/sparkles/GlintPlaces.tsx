import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { definitionOf, listLimit, sceneGraph, schemaAt } from '@welkinar/core'
import { useState } from 'react'
import { showNotice, showProblem } from '../../../common/notices'
import { NumberField } from '../../../common/NumberField'
import { SchemaNumber } from '../../controls/SchemaNumber'
import { changeKind, useScene } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import { ToolButton } from '../../controls/ToolButton'
import type { EffectPanelProps } from '../effectInterface'
import { placedGlints, type GlintPlace } from './GlintHandles'
import { usePool, useSource } from '../../../scene/openSceneContext'
import { TwoColumns } from '../../../common/TwoColumns'

const most = listLimit(schemaAt(definitionOf('sparkles').controls, 'pattern.places'))?.most ?? 0
/** Least distance between found glints, as a part of the longer side of the photo. */
const APART = 0.025
/** The faintest of them is this large against the strongest, %. */
const SMALLEST = 25

/** Where glints are: placed by taps, or found in the photo. */
export function GlintPlaces({ effect }: EffectPanelProps<'sparkles'>) {
  const pool = usePool()
  const source = useSource()
  const [wanted, setWanted] = useState(24)
  const placing = useScene((state) => state.tool?.kind === 'glints')
  const chosen = useScene((state) => state.chosenGlint)
  if (effect.controls.pattern.by !== 'placed') return null
  const glint = chosen === undefined ? undefined : placedGlints(effect)[chosen]
  const count = placedGlints(effect).length
  const put = (label: string, places: GlintPlace[]) =>
    changeKind('sparkles', effect.id, label, ({ controls }) => void (controls.pattern.places = places))
  const find = async () => {
    const { photo } = source
    const apart = APART * Math.max(photo.width, photo.height)
    const found = await pool.findGlints(sceneGraph(source, { kind: 'photo' }), photo, wanted, apart)
    if (found.length === 0) return showNotice('No small bright spots stand out in this photo. Place glints by hand.')
    const sized = ({ x, y, strength }: (typeof found)[number]) => ({
      x: Math.round(x),
      y: Math.round(y),
      size: Math.round(SMALLEST + (100 - SMALLEST) * Math.sqrt(strength)),
      turn: 0,
    })
    put('Find glints', found.map(sized))
    if (found.length < wanted) showNotice(`${found.length} spots stand out; ${wanted} were wanted.`)
  }
  return (
    <Box role="group" aria-label="Places of the glints" sx={{ borderTop: `1px solid ${ink.rule}`, mt: 1, pt: 3, display: 'grid', gap: 2 }}>
      <Box>
        {count} {count === 1 ? 'glint' : 'glints'} placed
      </Box>
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center' }}>
        <ToolButton tool={{ kind: 'glints' }} label="Place glints" />
        <Button variant="outlined" onClick={() => find().catch((error: unknown) => showProblem(error, 'Finding glints'))}>
          Find glints
        </Button>
        <NumberField
          label="How many are to be found"
          value={wanted}
          limits={{ least: 1, most, whole: true }}
          control={{ unit: '', step: 1 }}
          onChange={(next) => setWanted(next)}
        />
        <Button variant="text" disabled={count === 0} onClick={() => put('Remove all glints', [])}>
          Remove all
        </Button>
      </Box>
      {glint && chosen !== undefined && <ChosenGlint effect={effect} glint={glint} index={chosen} />}
      <Box sx={{ color: ink.secondary }}>
        {placing
          ? 'Tap the photo for each glint.'
          : 'Press a glint for its size and turn; drag it to move it; double-tap takes it out. Found ones are the brightest small spots.'}
      </Box>
    </Box>
  )
}

interface ChosenGlintProps {
  readonly effect: EffectPanelProps<'sparkles'>['effect']
  readonly glint: GlintPlace
  readonly index: number
}

/** Size and turn of one glint as numbers. */
function ChosenGlint({ effect, glint, index }: ChosenGlintProps) {
  return (
    <TwoColumns label={`Glint ${index + 1}`}>
      {(['size', 'turn'] as const).map((key) => (
        <SchemaNumber
          key={key}
          schema={schemaAt(definitionOf('sparkles').controls, `pattern.places.0.${key}`)}
          value={glint[key]}
          start={key === 'size' ? 100 : 0}
          onChange={(value, gesture, label) =>
            changeKind(
              'sparkles',
              effect.id,
              `Glint: ${label}`,
              ({ controls }) => void Object.assign(controls.pattern.places[index] ?? {}, { [key]: value }),
              gesture && `${effect.id} glint ${index} ${key} ${gesture}`,
            )
          }
        />
      ))}
    </TwoColumns>
  )
}
