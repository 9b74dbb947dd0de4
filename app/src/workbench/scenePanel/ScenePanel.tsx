import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { noMarks } from '@welkinar/core'
import { useScene } from '../../scene/sceneStore'
import { ink, weight } from '../../theme'
import { ToolButton } from '../controls/ToolButton'
import { DepthSection } from './DepthSection'
import { LightRow } from './LightRow'
import { LevelRow } from './LevelRow'
import { ReadingSection } from './ReadingSection'
import { Hint, Section } from '../controls/Section'
import { useSource } from '../../scene/openSceneContext'

/** What the artist has read from the photo: lights, horizon, waterline, focal point, depth; and the pinned states. */
export function ScenePanel() {
  const source = useSource()
  const { lights, horizon, waterline, focal } = source.marks ?? noMarks
  const { change } = useScene.getState()
  return (
    <>
      <Box sx={{ px: 4, pt: 4, pb: 3, display: 'flex', alignItems: 'baseline', gap: 2 }}>
        <Box component="h2" sx={{ m: 0, fontSize: 17, fontWeight: weight.strong, flex: 1 }}>
          Scene marks
        </Box>
        <Button variant="outlined" onClick={() => useScene.getState().set({ panel: 'steps', tool: undefined })}>
          Done
        </Button>
      </Box>
      <Box sx={{ px: 4, pb: 3, color: ink.secondary }}>
        What is in the photo. Effects, masks and colours follow these marks, also when they move; a mark of yours goes before what was read.
      </Box>
      <ReadingSection />
      <Section title="Lights" action={<ToolButton tool={{ kind: 'mark', mark: 'light' }} label="Tap a light" />}>
        {lights.length === 0 && <Hint>Tap a lamp or the sun: its colour and size are read from the photo.</Hint>}
        {lights.map((light) => (
          <LightRow key={light.id} light={light} />
        ))}
      </Section>
      <Section title="Horizon" action={<ToolButton tool={{ kind: 'mark', mark: 'horizon' }} label={horizon ? 'Move' : 'Set'} />}>
        <LevelRow mark="horizon" level={horizon} />
      </Section>
      <Section
        title="Waterline or wet ground"
        action={<ToolButton tool={{ kind: 'mark', mark: 'waterline' }} label={waterline ? 'Move' : 'Set'} />}
      >
        <LevelRow mark="waterline" level={waterline} />
      </Section>
      <Section title="Centre of interest" action={<ToolButton tool={{ kind: 'mark', mark: 'focal' }} label={focal ? 'Move' : 'Set'} />}>
        {focal && (
          <Button
            variant="text"
            onClick={() => change('Remove the centre of interest', ({ marks }) => void (marks.focal = null))}
            sx={{ justifySelf: 'start' }}
          >
            Remove
          </Button>
        )}
      </Section>
      <DepthSection />
      <Section title="Pinned states">
        {(source.pinned ?? []).length === 0 && <Hint>Pin one at “Tones from” of a mask, so that the mask stays as it is.</Hint>}
        {(source.pinned ?? []).map(({ id, name }) => (
          <Box key={id} sx={{ display: 'flex', alignItems: 'center' }}>
            <Box sx={{ flex: 1, minWidth: 0 }}>{name}</Box>
            <Button
              variant="text"
              aria-label={`Remove ${name}`}
              onClick={() =>
                change('Remove pinned state', (scene) => void (scene.pinned = scene.pinned.filter((state) => state.id !== id)))
              }
            >
              Remove
            </Button>
          </Box>
        ))}
      </Section>
    </>
  )
}
