import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { findOwner, isEffect, nameOfEffect, type Scene } from '@welkinar/core'
import { Choice } from '../common/Choice'
import { NumberField } from '../common/NumberField'
import { NARROW } from '../common/useNarrow'
import { ink, PANEL_WIDTH, weight } from '../theme'
import { FIRST_COUNT, variationOf, type Axis } from './sheet'
import { keepNow } from '../scene/keepNow'
import { useTrials, vary } from './trialsStore'
import { variationsOf } from './variations'

interface AxesPanelProps {
  readonly scene: Scene
  readonly shows: 'variants' | 'kept'
  readonly across: Axis | undefined
  readonly down: Axis | undefined
  /** How many trials were put away. */
  readonly away: number
}

const NOTHING = 'nothing'
const COUNTS = { least: 2, most: 24, whole: true }

/** What is varied: one thing, or two against each other. */
export function AxesPanel({ scene, shows, across, down, away }: AxesPanelProps) {
  return (
    <Box
      component="aside"
      aria-label="What is varied"
      sx={{
        width: PANEL_WIDTH,
        flex: 'none',
        overflowY: 'auto',
        [NARROW]: { width: '100%', maxHeight: '45%' },
        borderLeft: `1px solid ${ink.rule}`,
        bgcolor: ink.paper,
        p: 4,
        display: 'grid',
        gap: 5,
        alignContent: 'start',
      }}
    >
      {shows === 'kept' ? (
        <>
          <Box sx={{ color: ink.secondary }}>
            States of this scene that you kept. They stay until you delete them, also after a reload. Taking one over is one step that can
            be undone.
          </Box>
          <Button variant="outlined" onClick={() => keepNow(scene)} sx={{ justifySelf: 'start' }}>
            Keep the picture as it is now
          </Button>
        </>
      ) : across ? (
        <>
          <AxisEditor scene={scene} title="Vary" axis={across} onChange={(axis) => axis && vary({ across: axis })} />
          <AxisEditor scene={scene} title="Against" axis={down} start={across} optional onChange={(axis) => vary({ down: axis })} />
        </>
      ) : (
        <Box sx={{ color: ink.secondary }}>There is nothing to vary yet: add an effect in the Workbench first.</Box>
      )}
      {across && (
        <Box sx={{ color: ink.secondary }}>
          Press a picture to see it large. Its menu, or the key M, marks it for comparing; two to four are then seen side by side.
        </Box>
      )}
      {shows === 'variants' && away > 0 && (
        <Button variant="outlined" onClick={() => useTrials.setState({ away: [] })} sx={{ justifySelf: 'start' }}>
          Bring back {away} put away
        </Button>
      )}
    </Box>
  )
}

interface AxisEditorProps {
  readonly scene: Scene
  readonly title: string
  readonly axis: Axis | undefined
  /** Where it begins when it is chosen first. */
  readonly start?: Axis
  readonly optional?: boolean
  onChange(axis: Axis | undefined): void
}

function AxisEditor({ scene, title, axis, start = axis, optional = false, onChange }: AxisEditorProps) {
  const found = axis && variationOf(scene, axis)
  const owner = found?.owner ?? findOwner(scene, start?.of) ?? scene.effects.at(-1)
  if (!owner || !start) return null
  const variations = variationsOf(scene, owner)
  const owners = [
    ...scene.effects.map((effect) => [effect.id, nameOfEffect(effect)] as const),
    ...scene.groups.map(({ id, name }) => [id, name] as const),
  ]
  const choose = (of: string, variation: string) => {
    if (variation === NOTHING) return onChange(undefined)
    const target = findOwner(scene, of)
    const known = target ? variationsOf(scene, target) : []
    const id = known.some((one) => one.id === variation) ? variation : known[0]?.id
    if (id) onChange({ of, variation: id, count: axis?.count ?? FIRST_COUNT, round: 0 })
  }
  const range = found?.variation.range
  const from = axis?.from ?? range?.control.usual[0] ?? 0
  const to = axis?.to ?? range?.control.usual[1] ?? 0
  return (
    <Box component="section" aria-label={title} sx={{ display: 'grid', gap: 2 }}>
      <Box component="h2" sx={{ m: 0, fontSize: 13, fontWeight: weight.strong }}>
        {title}
      </Box>
      <Choice
        label="What"
        value={axis?.variation ?? NOTHING}
        options={[...(optional ? [[NOTHING, 'Nothing'] as const] : []), ...variations.map(({ id, label }) => [id, label] as const)]}
        onChange={(id) => choose(owner.id, id)}
      />
      {axis && owners.length > 1 && <Choice label="Of" value={axis.of} options={owners} onChange={(id) => choose(id, axis.variation)} />}
      {axis && found?.variation.counted && (
        <Labelled label="How many">
          <NumberField
            label={`${title}: how many`}
            value={axis.count}
            limits={COUNTS}
            control={{ step: 1, unit: '' }}
            onChange={(count) => onChange({ ...axis, count })}
          />
        </Labelled>
      )}
      {axis && range && (
        <>
          <Labelled label="From">
            <NumberField
              label={`${title}: from`}
              value={from}
              limits={range.limits}
              control={range.control}
              onChange={(value) => onChange({ ...axis, from: value })}
            />
          </Labelled>
          <Labelled label="To">
            <NumberField
              label={`${title}: to`}
              value={to}
              limits={range.limits}
              control={range.control}
              onChange={(value) => onChange({ ...axis, to: value })}
            />
          </Labelled>
        </>
      )}
      {axis && found?.variation.id === 'seed' && (
        <Button variant="outlined" onClick={() => onChange({ ...axis, round: axis.round + 1 })} sx={{ justifySelf: 'start' }}>
          Other seeds
        </Button>
      )}
      {!isEffect(owner) && axis && <Box sx={{ color: ink.secondary }}>A group has its amount, its mode and its masks to vary.</Box>}
    </Box>
  )
}

function Labelled({ label, children }: { readonly label: string; readonly children: React.ReactNode }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center' }}>
      <Box sx={{ flex: 1 }} aria-hidden>
        {label}
      </Box>
      {children}
    </Box>
  )
}
