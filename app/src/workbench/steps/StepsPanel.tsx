import Box from '@mui/material/Box'
import { definitionOf, isEffect, lookOf, noMarks, type Effect, type Group, type Owner } from '@welkinar/core'
import { NameInput } from '../../common/NameInput'
import { changeEffect, useScene } from '../../scene/sceneStore'
import type { Panel } from '../../scene/viewState'
import { ink, PANEL_WIDTH, weight } from '../../theme'
import { interfaceOf } from '../kinds'
import { PhotoPanel } from '../photoPanel/PhotoPanel'
import { ScenePanel } from '../scenePanel/ScenePanel'
import { AmountControl } from './AmountControl'
import { ColourStep, colourSummary } from './ColourStep'
import { FieldControls } from '../controls/FieldControls'
import { GroupHead } from './GroupHead'
import { LitControl } from './LitControl'
import { MixStep, mixSummary } from './MixStep'
import { OtherLooks } from './OtherLooks'
import { RegionEditor } from './RegionEditor'
import { SchemaControl } from '../controls/SchemaControl'
import { StepSection } from './StepSection'
import { WhereStep } from './where/WhereStep'
import { whereSummary } from './where/whereSummary'
import { useSource } from '../../scene/openSceneContext'
import { TwoColumns } from '../../common/TwoColumns'

interface StepsPanelProps {
  readonly owner: Owner | undefined
}

/** The selected effect or group with its steps and what each of them makes; or the scene itself. */
export function StepsPanel({ owner }: StepsPanelProps) {
  const panel = useScene((state) => state.panel)
  return (
    <Box
      // What is shown anew is seen from its top.
      key={panel === 'steps' ? owner?.id : panel}
      component="aside"
      aria-label={panelNames[panel]}
      sx={{ width: PANEL_WIDTH, flex: 'none', overflowY: 'auto', borderLeft: `1px solid ${ink.rule}`, bgcolor: ink.paper }}
    >
      {panel === 'marks' ? (
        <ScenePanel />
      ) : panel === 'photo' ? (
        <PhotoPanel />
      ) : !owner ? (
        <NothingSelected />
      ) : isEffect(owner) ? (
        <EffectSteps key={owner.id} effect={owner} />
      ) : (
        <GroupSteps key={owner.id} group={owner} />
      )}
    </Box>
  )
}

const panelNames: Record<Panel, string> = { steps: 'Steps', marks: 'Scene', photo: 'Photo' }

function NothingSelected() {
  return (
    <Box sx={{ p: 5, color: ink.secondary, fontSize: 15, lineHeight: 1.5 }}>
      <Box component="h2" sx={{ m: 0, mb: 2, fontSize: 17, color: ink.ink }}>
        The photo as it is
      </Box>
      Press a <b>+</b> on the depth line below to put weather or light into it: stars and haze at the left, rain and what lies on the lens
      at the right, and last of all the finish, such as soft focus, tones and grain.
    </Box>
  )
}

interface EffectStepsProps {
  readonly effect: Effect
}

function EffectSteps({ effect }: EffectStepsProps) {
  const source = useSource()
  const definition = definitionOf(effect.kind)
  const { Pattern, Shape } = interfaceOf(effect.kind)
  const summary = definition.summary(effect.controls)
  const words = definition.inWords?.(effect.controls, { ...source.photo, marks: source.marks ?? noMarks })
  // Specks are seen close up; what is large, the mask and the result as a whole.
  const shared = { ownerId: effect.id, part: definition.shownPart < 1 ? 0.55 * definition.shownPart : 1 }
  return (
    <>
      <Box sx={{ px: 4, pt: 4, pb: 3 }}>
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2, mb: 3 }}>
          <Box component="h2" sx={{ m: 0, fontSize: 17, fontWeight: weight.strong, letterSpacing: '-0.01em', whiteSpace: 'nowrap' }}>
            {definition.label}
          </Box>
          <NameInput
            key={effect.id}
            label="Name of the effect"
            name={effect.name}
            placeholder={lookOf(effect).name}
            size={13}
            quiet
            width={150}
            onRename={(name) => changeEffect(effect.id, 'Rename effect', (one) => void (one.name = name))}
          />
          <Box sx={{ flex: 1 }} />
          <OtherLooks effect={effect} />
        </Box>
        <TwoColumns label="Dials" gap={5}>
          {definition.dials
            .filter((path) => definition.applies?.(path, effect.controls) ?? true)
            .map((path) => (
              <SchemaControl key={path} effect={effect} path={path} />
            ))}
          {definition.family !== 'finish' && <LitControl effect={effect} />}
          <AmountControl owner={effect} />
        </TwoColumns>
        {words && <Box sx={{ mt: 2, color: ink.secondary, '&::first-letter': { textTransform: 'uppercase' } }}>{words}</Box>}
      </Box>
      <StepSection {...shared} step="pattern" number={1} title="Pattern" summary={summary.pattern}>
        <FieldControls effect={effect} step="pattern" />
        {Pattern && <Pattern effect={effect} />}
        <RegionEditor effect={effect} step="pattern" />
      </StepSection>
      <StepSection {...shared} step="shape" number={2} title="Shape" summary={summary.shape}>
        <FieldControls effect={effect} step="shape" />
        {Shape && <Shape effect={effect} />}
        <RegionEditor effect={effect} step="shape" />
      </StepSection>
      <StepSection {...shared} step="colour" number={3} title="Colour" summary={colourSummary(effect, source)}>
        <ColourStep effect={effect} />
      </StepSection>
      <SharedSteps owner={effect} />
    </>
  )
}

/** A group has no pattern of its own; it has a place, a mask and an amount. */
function GroupSteps({ group }: { readonly group: Group }) {
  return (
    <>
      <Box sx={{ px: 4, pt: 4, pb: 3 }}>
        <GroupHead group={group} />
        <AmountControl owner={group} />
      </Box>
      <SharedSteps owner={group} />
    </>
  )
}

interface SharedStepsProps {
  readonly owner: Owner
}

function SharedSteps({ owner }: SharedStepsProps) {
  const source = useSource()
  const shared = { ownerId: owner.id, part: 1 }
  return (
    <>
      <StepSection {...shared} step="where" number={4} title="Where" summary={whereSummary(owner.where, source)}>
        <WhereStep owner={owner} />
      </StepSection>
      <StepSection {...shared} step="mix" number={5} title="Mix" summary={mixSummary(owner)}>
        <MixStep owner={owner} />
      </StepSection>
    </>
  )
}
