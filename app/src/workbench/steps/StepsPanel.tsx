import Box from '@mui/material/Box'
import { controlOf, definitionOf, schemaAt, type Effect, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { ink } from '../../theme'
import { AmountControl } from './AmountControl'
import { ColourStep, colourSummary } from './ColourStep'
import { FieldControls, PerLayerControls } from './FieldControls'
import { MixStep, mixSummary } from './MixStep'
import { SchemaControl } from './SchemaControl'
import { StepSection } from './StepSection'
import { WhereStep } from './where/WhereStep'
import { whereSummary } from './where/whereSummary'

interface StepsPanelProps {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly effect: Effect | undefined
}

/** The selected effect: its dials, and its five steps with what each of them makes. */
export function StepsPanel({ pool, source, effect }: StepsPanelProps) {
  return (
    <Box
      component="aside"
      aria-label="Steps"
      sx={{ width: { xs: 288, lg: 320 }, flex: 'none', overflowY: 'auto', borderLeft: `1px solid ${ink.rule}`, bgcolor: ink.paper }}
    >
      {effect ? <EffectSteps key={effect.id} pool={pool} source={source} effect={effect} /> : <NothingSelected />}
    </Box>
  )
}

function NothingSelected() {
  return (
    <Box sx={{ p: 5, color: ink.secondary, fontSize: 15, lineHeight: 1.5 }}>
      <Box component="h2" sx={{ m: 0, mb: 2, fontSize: 17, color: ink.ink }}>
        The photo as it is
      </Box>
      Press a <b>+</b> on the depth line below to put weather into it. Far things go to the left, near things to the right.
    </Box>
  )
}

function EffectSteps({ pool, source, effect }: { pool: RenderPool; source: PictureSource; effect: Effect }) {
  const definition = definitionOf(effect.kind)
  const summary = definition.summary(effect.controls)
  const shared = { pool, source, effect }
  return (
    <>
      <Box sx={{ px: 4, pt: 4, pb: 3 }}>
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2, mb: 3 }}>
          <Box component="h2" sx={{ m: 0, fontSize: 17, fontWeight: 650, letterSpacing: '-0.01em' }}>
            {definition.label}
          </Box>
          <Box sx={{ color: ink.secondary, flex: 1, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
            {effect.name}
          </Box>
        </Box>
        <Box role="group" aria-label="Dials" sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 4, rowGap: 1 }}>
          {definition.dials
            .filter((path) => controlOf(schemaAt(definition.controls, path)))
            .map((path) => (
              <SchemaControl key={path} effect={effect} path={path} />
            ))}
          <AmountControl effect={effect} />
        </Box>
      </Box>
      <StepSection {...shared} step="pattern" number={1} title="Pattern" summary={summary.pattern}>
        <FieldControls effect={effect} step="pattern" />
        <PerLayerControls effect={effect} />
      </StepSection>
      <StepSection {...shared} step="shape" number={2} title="Shape" summary={summary.shape}>
        <FieldControls effect={effect} step="shape" />
      </StepSection>
      <StepSection {...shared} step="colour" number={3} title="Colour" summary={colourSummary(effect)}>
        <ColourStep {...shared} />
      </StepSection>
      <StepSection {...shared} step="where" number={4} title="Where" summary={whereSummary(effect.where)}>
        <WhereStep {...shared} />
      </StepSection>
      <StepSection {...shared} step="mix" number={5} title="Mix" summary={mixSummary(effect)}>
        <MixStep effect={effect} />
      </StepSection>
    </>
  )
}
