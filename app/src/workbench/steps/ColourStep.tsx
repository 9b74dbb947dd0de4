import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import OutlinedInput from '@mui/material/OutlinedInput'
import { colourOf, hexFromRgb, noMarks, sceneGraph, type Effect, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { useState } from 'react'
import { HexColorPicker, setNonce } from 'react-colorful'
import { Choice } from '../../common/Choice'
import { styleNonce } from '../../common/styleNonce'
import { showProblem } from '../../common/notices'
import { changeEffect } from '../../scene/sceneStore'
import { startingEffect } from './startingControls'

interface ColourStepProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly effect: Effect
}

if (styleNonce) setNonce(styleNonce)

const BRIGHTEST_PART = 0.05
const OWN = 'own'

export function colourSummary({ colour }: Effect, { marks = noMarks }: PictureSource): string {
  const light = marks.lights.find(({ id }) => id === colour.light)
  return light ? `from ${light.name}` : `one tint, ${colour.tint}`
}

/** One tint over the intensities: chosen, typed, or measured from the photo's brightest places. */
export function ColourStep({ pool, source, effect }: ColourStepProps) {
  const tint = hexFromRgb(colourOf(effect, source.marks))
  const lights = source.marks?.lights ?? []
  const setTint = (hex: string, gesture?: string) =>
    changeEffect(effect.id, 'Tint', (one) => void Object.assign(one.colour, { tint: hex, light: null }), gesture)
  const follow = (light: string) =>
    changeEffect(effect.id, 'Colour from a light', (one) => void Object.assign(one.colour, { tint, light: light === OWN ? null : light }))
  const measure = () => {
    pool
      .brightestColour(sceneGraph(source, { kind: 'photo' }), source.photo, BRIGHTEST_PART)
      .then((colour) => setTint(hexFromRgb(colour)))
      .catch((error: unknown) => showProblem(error, 'Measuring the colour'))
  }
  return (
    <>
      {lights.length > 0 && (
        <Choice
          label="Colour from"
          value={effect.colour.light ?? OWN}
          options={[[OWN, 'A tint of its own'], ...lights.map(({ id, name }) => [id, name] as const)]}
          onChange={follow}
        />
      )}
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
        <Button variant="outlined" onClick={measure}>
          From the brightest 5 %
        </Button>
        <Button variant="text" onClick={() => setTint(startingEffect(effect, source.photo).colour.tint)}>
          Reset
        </Button>
      </Box>
    </>
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
