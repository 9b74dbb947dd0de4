import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { definitionOf, effectDefinitions, type DepthPlace, type EffectFamily, type EffectKind } from '@welkinar/core'
import { useState } from 'react'
import { ink, weight } from '../../theme'
import { lastKinds } from './lastKinds'

interface KindChoiceProps {
  readonly place: DepthPlace
  /** The one whose looks are shown; undefined while others are. */
  readonly kind: EffectKind | undefined
  onChoose(kind: EffectKind): void
}

const families: readonly (readonly [EffectFamily, string])[] = [
  ['weather', 'Weather'],
  ['light', 'Light'],
  ['finish', 'Finish'],
  ['own', 'Your own'],
]

/** All kinds of effect: those that were used last, those that belong to the place, and the others by family. */
export function KindChoice({ place, kind, onChoose }: KindChoiceProps) {
  // As it was when the panel opened: nothing moves while one chooses.
  const [last] = useState(lastKinds)
  const offered = effectDefinitions.filter(({ madeFromEffect }) => !madeFromEffect)
  const fits = offered.filter((one) => one.place === place).map((one) => one.kind)
  const rows: [title: string, kinds: readonly EffectKind[]][] = [
    ['Used last', last],
    ['Fits here', fits],
    ...families.map(([family, title]): [string, EffectKind[]] => [
      title,
      offered.flatMap((one) => (one.family === family && !fits.includes(one.kind) ? [one.kind] : [])),
    ]),
  ]
  return (
    <Box
      component="nav"
      aria-label="Kinds of effect"
      sx={{ flex: 'none', pl: 4, pr: 2, py: 2, borderBottom: `1px solid ${ink.rule}`, display: 'grid', gap: '3px' }}
    >
      {rows
        .filter(([, kinds]) => kinds.length > 0)
        .map(([title, kinds]) => (
          <Box key={title} role="group" aria-label={title} sx={{ display: 'grid', gridTemplateColumns: '64px 1fr', alignItems: 'start' }}>
            <Box component="h3" sx={{ m: 0, lineHeight: '26px', fontSize: 12, fontWeight: weight.plain, color: ink.secondary }}>
              {title}
            </Box>
            <Box sx={{ display: 'flex', flexWrap: 'wrap' }}>
              {kinds.map((one) => (
                <ButtonBase
                  key={one}
                  aria-pressed={one === kind}
                  onClick={() => onChoose(one)}
                  sx={{
                    px: '6px',
                    minHeight: 26,
                    fontWeight: one === kind ? weight.strong : weight.plain,
                    boxShadow: one === kind ? `inset 0 -2px 0 ${ink.accent}` : 'none',
                    '&:hover': { bgcolor: ink.well },
                    '&:focus-visible': { outlineOffset: -2 },
                  }}
                >
                  {definitionOf(one).label}
                </ButtonBase>
              ))}
            </Box>
          </Box>
        ))}
    </Box>
  )
}
