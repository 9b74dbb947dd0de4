import Button from '@mui/material/Button'
import { coloursThatCount, lightOf, noMarks, ownColoursOf, temperatureInWords, type Effect, type PictureSource } from '@welkinar/core'
import { useMemo } from 'react'
import { changeEffect } from '../../scene/sceneStore'
import { ColourSource, type ColourProps } from './ColourSource'
import { BalanceEditor } from './RampEditor'
import { useSource } from '../../scene/openSceneContext'

const NO_SHIFT = { red: 0, green: 0, blue: 0 }

export function colourSummary(effect: Effect, { marks = noMarks }: PictureSource): string {
  const { colour } = effect
  const ownColours = ownColoursOf(effect)
  if (ownColours) return ownColours
  const light = lightOf(marks, colour.light)
  if (colour.ramp) return `ramp of ${colour.ramp.length} colours`
  if (light) return `from ${light.name}`
  return colour.kelvin === null ? `one tint, ${colour.tint}` : `${colour.kelvin} K, ${temperatureInWords(colour.kelvin)}`
}

/** The colours of an effect, as far as it has not its own. */
export function ColourStep({ effect }: ColourProps) {
  const source = useSource()
  const counts = useMemo(() => coloursThatCount(source, effect), [source, effect])
  const { balance } = effect.colour
  const toggleBalance = () =>
    changeEffect(effect.id, 'Balance', ({ colour }) => {
      colour.balance = colour.balance ? null : { shadows: NO_SHIFT, midtones: NO_SHIFT, highlights: NO_SHIFT, keepLuminosity: false }
    })
  return (
    <>
      {counts.tint && <ColourSource effect={effect} ramped={counts.ramp} />}
      {counts.balance && (
        <Button variant="outlined" aria-pressed={balance !== null} onClick={toggleBalance} sx={{ justifySelf: 'start' }}>
          {balance ? 'Without balance' : 'Balance its colours'}
        </Button>
      )}
      {counts.balance && balance && <BalanceEditor effect={effect} balance={balance} />}
    </>
  )
}
