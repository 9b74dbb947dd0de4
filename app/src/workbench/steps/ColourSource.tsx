import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import OutlinedInput from '@mui/material/OutlinedInput'
import { colourOf, colourSchema, hexFromRgb, lightOf, noMarks, sceneGraph, type Effect } from '@welkinar/core'
import { useState } from 'react'
import { HexColorPicker, setNonce } from 'react-colorful'
import { DropperButton } from '../controls/ColourField'
import { Choice } from '../../common/Choice'
import { SchemaNumber } from '../controls/SchemaNumber'
import { styleNonce } from '../../common/styleNonce'
import { showProblem } from '../../common/notices'
import { changeEffect } from '../../scene/sceneStore'
import { RampEditor } from './RampEditor'
import { startingEffect } from '../actions/startingControls'
import { ink } from '../../theme'
import { usePool, useSource } from '../../scene/openSceneContext'

if (styleNonce) setNonce(styleNonce)

const BRIGHTEST_PART = 0.05
const OWN = 'own'
const TEMPERATURE = 'temperature'
const DAYLIGHT = 5600
const RAMP = 'ramp'

export interface ColourProps {
  readonly effect: Effect
}

interface ColourSourceProps extends ColourProps {
  /** Whether a ramp over its intensity counts. */
  readonly ramped: boolean
}

/** Where its colour comes from: a tint that is chosen, typed or measured from the photo's brightest places, a temperature, a ramp, or a light of the scene. */
export function ColourSource({ effect, ramped }: ColourSourceProps) {
  const pool = usePool()
  const source = useSource()
  const ramp = ramped ? effect.colour.ramp : null
  const tint = hexFromRgb(colourOf(effect, source.marks))
  const lights = source.marks?.lights ?? []
  const followed = lightOf(source.marks ?? noMarks, effect.colour.light)
  const fromWhat = ramp ? RAMP : (followed?.id ?? (effect.colour.kelvin === null ? OWN : TEMPERATURE))
  const setTint = (hex: string, gesture?: string) =>
    changeEffect(effect.id, 'Tint', (one) => void Object.assign(one.colour, { tint: hex, light: null, kelvin: null }), gesture)
  const follow = (from: string) =>
    changeEffect(effect.id, 'Where the colour comes from', ({ colour }) => {
      colour.kelvin = from === TEMPERATURE ? DAYLIGHT : null
      colour.light = from === OWN || from === TEMPERATURE || from === RAMP ? null : from
      colour.ramp =
        from === RAMP
          ? [
              { at: 0, colour: tint },
              { at: 100, colour: ink.white },
            ]
          : null
      if (from !== RAMP) colour.tint = tint
    })
  const measure = () => {
    pool
      .brightestColour(sceneGraph(source, { kind: 'photo' }), source.photo, BRIGHTEST_PART)
      .then((colour) => setTint(hexFromRgb(colour)))
      .catch((error: unknown) => showProblem(error, 'Measuring the colour'))
  }
  return (
    <>
      <Choice
        label="Colour from"
        value={fromWhat}
        options={[
          [OWN, 'A tint of its own'],
          [TEMPERATURE, 'Colour temperature'],
          ...(ramped ? [[RAMP, 'A ramp over its intensity'] as const] : []),
          ...lights.map(({ id, name }) => [id, name] as const),
        ]}
        onChange={follow}
      />
      {fromWhat === TEMPERATURE && effect.colour.kelvin !== null && <Temperature effect={effect} kelvin={effect.colour.kelvin} />}
      {ramp && <RampEditor effect={effect} ramp={ramp} />}
      {!ramp && (
        <>
          <Box
            sx={{
              '& .react-colorful': { width: '100%', height: 150 },
              '& .react-colorful__saturation': { borderRadius: '2px 2px 0 0' },
              '& .react-colorful__last-control': { borderRadius: 0 },
            }}
          >
            <HexColorPicker color={tint} onChange={(hex) => setTint(hex, `${effect.id} tint`)} />
          </Box>
          <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap' }}>
            <HexField value={tint} onTake={setTint} />
            <DropperButton what="Tint" onTake={(hex) => setTint(hex)} />
            <Button variant="outlined" onClick={measure}>
              From the brightest 5 %
            </Button>
            <Button variant="text" onClick={() => setTint(startingEffect(effect, source.photo).colour.tint)}>
              Reset
            </Button>
          </Box>
        </>
      )}
    </>
  )
}

function Temperature({ effect, kelvin }: { readonly effect: Effect; readonly kelvin: number }) {
  return (
    <SchemaNumber
      schema={colourSchema.shape.kelvin}
      value={kelvin}
      start={DAYLIGHT}
      onChange={(value, gesture, label) =>
        changeEffect(effect.id, label, (one) => void (one.colour.kelvin = value), gesture && `${effect.id} kelvin ${gesture}`)
      }
    />
  )
}

function HexField({ value, onTake }: { readonly value: string; onTake(hex: string): void }) {
  const [typed, setTyped] = useState<string>()
  const hex = typed && (typed.startsWith('#') ? typed : `#${typed}`)
  const valid = hex === undefined || /^#[0-9a-f]{6}$/i.test(hex)
  const take = () => {
    if (hex && valid) onTake(hex.toLowerCase())
    setTyped(undefined)
  }
  return (
    <OutlinedInput
      value={typed ?? value}
      error={!valid}
      inputProps={{ 'aria-label': 'Tint, written as six hexadecimal digits' }}
      sx={{ width: 92 }}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  )
}
