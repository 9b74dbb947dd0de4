import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import TextField from '@mui/material/TextField'
import {
  definitionOf,
  framedGraph,
  frameOfSource,
  newEffect,
  sceneGraph,
  type DepthPlace,
  type Effect,
  type EffectKind,
  type Scene,
} from '@welkinar/core'
import { useEffect, useMemo, useState } from 'react'
import { keepChoice, keptChoice } from '../../common/keptChoice'
import { select, useScene } from '../../scene/sceneStore'
import { ink, PANEL_WIDTH, weight } from '../../theme'
import { LEAST_PART, LookButton } from '../pictures/LookButton'
import { KindChoice } from './KindChoice'
import { noteKind } from './lastKinds'
import { insertEffect } from '../actions/moveEffect'
import { offers, search, type Offer } from './offers'
import { placeLabels } from './places'
import { useSource } from '../../scene/openSceneContext'

interface LookOffersProps {
  readonly place: DepthPlace
}

/** What is looked for first at each place. */
const usualKinds: Record<DepthPlace, EffectKind> = {
  sky: 'stars',
  far: 'haze',
  middle: 'fog',
  near: 'rain',
  lens: 'lightBloom',
  finish: 'softFocus',
}
/** Where it is kept whether the pattern alone is shown. */
const PATTERN_ONLY = 'welkinar look pictures'

/** Puts the panel away. */
const close = () => useScene.getState().set({ adding: undefined })

/** The kinds above, the starting looks of one of them as pictures on the photo. What is pointed at is tried in the view; only what is chosen is added. */
export function LookOffers({ place }: LookOffersProps) {
  const [kind, setKind] = useState(usualKinds[place])
  const [typed, setTyped] = useState('')
  const [patternOnly, setPatternOnly] = useState(() => keptChoice(PATTERN_ONLY) === 'pattern')
  const definition = definitionOf(kind)
  const shown = useMemo(() => (typed.trim() ? search(typed) : offers.filter((offer) => offer.kind === kind)), [typed, kind])
  // What is tried is gone with the panel, however it is left.
  useEffect(() => () => useScene.getState().try(undefined), [])
  const showPattern = (on: boolean) => {
    setPatternOnly(on)
    keepChoice(PATTERN_ONLY, on ? 'pattern' : 'photo')
  }
  return (
    <Box
      component="aside"
      aria-label="Add an effect"
      onKeyDown={(event) => event.key === 'Escape' && close()}
      sx={{
        width: PANEL_WIDTH,
        flex: 'none',
        minHeight: 0,
        display: 'flex',
        flexDirection: 'column',
        overflowY: 'auto',
        borderLeft: `1px solid ${ink.rule}`,
        bgcolor: ink.paper,
      }}
    >
      <Box sx={{ px: 4, pt: 3, pb: 3, display: 'grid', gap: 2, borderBottom: `1px solid ${ink.rule}` }}>
        <Box sx={{ display: 'flex', alignItems: 'center' }}>
          <Box component="h2" sx={{ m: 0, fontSize: 15, fontWeight: weight.strong }}>
            {typed.trim() ? 'Found' : definition.label}
          </Box>
          <Box component="span" sx={{ color: ink.secondary, ml: 2, flex: 1 }}>
            {placeLabels[place]}
          </Box>
          <FormControlLabel
            control={<Switch checked={patternOnly} onChange={(_, on) => showPattern(on)} />}
            label="Pattern alone"
            slotProps={{ typography: { sx: { ml: 2 } } }}
            sx={{ m: 0, mr: 3 }}
          />
          <Button variant="outlined" onClick={close}>
            Close
          </Button>
        </Box>
        <TextField
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          placeholder="Find: drizzle, sunset, glitter …"
          size="small"
          fullWidth
          slotProps={{ htmlInput: { 'aria-label': 'Find a look' } }}
        />
      </Box>
      <KindChoice place={place} kind={typed.trim() ? undefined : kind} onChoose={(one) => (setKind(one), setTyped(''))} />
      <Box
        role="group"
        aria-label={typed.trim() ? 'Looks that were found' : `Looks of ${definition.label}`}
        onMouseLeave={() => useScene.getState().try(undefined)}
        onBlur={() => useScene.getState().try(undefined)}
        sx={{
          // Where there is little room all of it scrolls.
          flex: '1 0 250px',
          overflowY: 'auto',
          px: 4,
          py: 3,
          display: 'grid',
          gridTemplateColumns: '1fr 1fr',
          gap: 3,
          alignContent: 'start',
        }}
      >
        {shown.length === 0 && <Box sx={{ color: ink.secondary, gridColumn: '1 / -1' }}>Nothing found. Try another word.</Box>}
        {shown.map((offer) => (
          <Look key={`${offer.kind} ${offer.look}`} {...{ place, offer, patternOnly }} withKind={typed.trim() !== ''} />
        ))}
      </Box>
    </Box>
  )
}

interface LookProps extends LookOffersProps {
  readonly offer: Offer
  readonly patternOnly: boolean
  readonly withKind: boolean
}

/** One look: a picture of the photo with it, or of its pattern alone. */
function Look({ place, offer, patternOnly, withKind }: LookProps) {
  const source = useSource()
  const { kind, look, name, label } = offer
  const { photo, marks, groundwork } = source
  const effect = useMemo(
    () => newEffect(photo, { kind, look, place, id: 'offer', frame: frameOfSource({ photo, groundwork }), ...(marks ? { marks } : {}) }),
    [photo, marks, groundwork, kind, look, place],
  )
  const node = useMemo(
    () =>
      patternOnly
        ? sceneGraph({ ...source, effects: [effect], groups: [], pinned: [] }, { kind: 'alone', effectId: 'offer' })
        : framedGraph({ ...source, effects: withEffect(source.effects, effect) }),
    [source, effect, patternOnly],
  )
  const { shownPart } = definitionOf(kind)
  const attempt = () => useScene.getState().try((scene) => insertEffect(scene, structuredClone(effect)))
  const take = () => {
    const made = { ...effect, id: crypto.randomUUID() }
    noteKind(kind)
    if (useScene.getState().change(`Add ${name}`, (scene) => insertEffect(scene, made))) select(made.id)
    else close()
  }
  return (
    <LookButton
      name={name}
      kind={withKind ? label : undefined}
      node={node}
      photo={photo}
      {...(patternOnly ? {} : { frame: frameOfSource(source) })}
      part={patternOnly ? shownPart : Math.max(LEAST_PART, shownPart)}
      onTry={attempt}
      onTake={take}
    />
  )
}

/** The effects with one more, where it would be put. */
function withEffect(effects: readonly Effect[], effect: Effect): Effect[] {
  const scene = { effects: [...effects] }
  insertEffect(scene as Pick<Scene, 'effects'>, effect)
  return scene.effects
}
