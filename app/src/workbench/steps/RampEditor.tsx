import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import {
  balanceSchema,
  colourSchema,
  limitsOf,
  listLimit,
  rampStopSchema,
  readPath,
  schemaAt,
  writePath,
  type Balance,
  type Effect,
  type Ramp,
} from '@welkinar/core'
import { ColourField } from '../controls/ColourField'
import { SchemaNumber } from '../controls/SchemaNumber'
import { NumberField } from '../../common/NumberField'
import { changeEffect } from '../../scene/sceneStore'
import { ink } from '../../theme'

const most = listLimit(colourSchema.shape.ramp)?.most ?? 0

function changeRamp(effect: Effect, label: string, change: (ramp: Ramp) => void, gesture?: string): void {
  changeEffect(effect.id, label, ({ colour }) => colour.ramp && change(colour.ramp), gesture)
}

/** The stops of a ramp: where on the intensity they lie, and their colours. */
export function RampEditor({ effect, ramp }: { readonly effect: Effect; readonly ramp: Ramp }) {
  const sorted = [...ramp].sort((a, b) => a.at - b.at)
  const stops = sorted.map(({ at, colour }) => `${colour} ${at}%`).join(', ')
  const add = () =>
    changeRamp(effect, 'Add a stop', (all) => {
      const widest = sorted
        .slice(1)
        .reduce((best, stop, i) => (stop.at - (sorted[i]?.at ?? 0) > best.gap ? { gap: stop.at - (sorted[i]?.at ?? 0), i } : best), {
          gap: -1,
          i: 0,
        })
      const [a, b] = [sorted[widest.i], sorted[widest.i + 1]]
      if (a && b) all.push({ at: Math.round((a.at + b.at) / 2), colour: b.colour })
    })
  return (
    <Box role="group" aria-label="Ramp" sx={{ display: 'grid', gap: 2 }}>
      <Box sx={{ height: 22, border: `1px solid ${ink.rule}`, background: `linear-gradient(to right in oklab, ${stops})` }} />
      {ramp.map(({ at, colour }, index) => (
        <Box key={index} sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
          <ColourField
            label={`Colour of stop ${index + 1}`}
            value={colour}
            onChange={(hex, gesture) =>
              changeRamp(
                effect,
                'Colour of a stop',
                (all) => void Object.assign(all[index] ?? {}, { colour: hex }),
                gesture && `${effect.id} stop ${index}`,
              )
            }
          />
          <NumberField
            label={`Place of stop ${index + 1}`}
            value={at}
            limits={limitsOf(rampStopSchema.shape.at)}
            control={{ unit: '%', step: 1 }}
            onChange={(value, gesture) =>
              changeRamp(effect, 'Place of a stop', (all) => void Object.assign(all[index] ?? {}, { at: value }), gesture)
            }
          />
          <Box sx={{ flex: 1 }} />
          <Button
            variant="text"
            disabled={ramp.length <= 2}
            aria-label={`Remove stop ${index + 1}`}
            onClick={() => changeRamp(effect, 'Remove a stop', (all) => void all.splice(index, 1))}
          >
            Remove
          </Button>
        </Box>
      ))}
      <Button variant="outlined" disabled={ramp.length >= most} onClick={add} sx={{ justifySelf: 'start' }}>
        Add a stop
      </Button>
    </Box>
  )
}

const ranges = [
  ['shadows', 'Shadows'],
  ['midtones', 'Midtones'],
  ['highlights', 'Highlights'],
] as const
const channels = ['red', 'green', 'blue'] as const

/** Shifts of the colours in the faint, middle and bright parts of the pattern. */
export function BalanceEditor({ effect, balance }: { readonly effect: Effect; readonly balance: Balance }) {
  const change = (path: string, value: number, gesture?: string) =>
    changeEffect(
      effect.id,
      'Balance',
      ({ colour }) => colour.balance && writePath(colour.balance, path, value),
      gesture && `${effect.id} ${path} ${gesture}`,
    )
  return (
    <Box role="group" aria-label="Balance" sx={{ display: 'grid', gap: 2 }}>
      {ranges.map(([range, label]) => (
        <Box key={range}>
          <Box sx={{ color: ink.secondary }}>{label}</Box>
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', columnGap: 3 }}>
            {channels.map((channel) => {
              const path = `${range}.${channel}`
              return (
                <SchemaNumber
                  key={channel}
                  schema={schemaAt(balanceSchema, path)}
                  value={readPath(balance, path)}
                  start={0}
                  onChange={(value, gesture) => change(path, value, gesture)}
                />
              )
            })}
          </Box>
        </Box>
      ))}
      <Box component="label" sx={{ display: 'flex', alignItems: 'center', gap: 2, minHeight: 32 }}>
        <input
          type="checkbox"
          checked={balance.keepLuminosity}
          onChange={(event) =>
            changeEffect(
              effect.id,
              'Keep luminosity',
              ({ colour }) => colour.balance && void (colour.balance.keepLuminosity = event.target.checked),
            )
          }
        />
        Keep luminosity
      </Box>
    </Box>
  )
}
