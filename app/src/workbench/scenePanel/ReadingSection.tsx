import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import { horizonOf, noMarks, NOT_READ, waterlineOf, type Reading, type Size } from '@welkinar/core'
import type { ReactNode } from 'react'
import { showProblem } from '../../common/notices'
import { readByItself, readPhoto, useReading } from '../../scene/readPhoto'
import { useScene } from '../../scene/sceneStore'
import { markLight } from '../actions/markLight'
import { Hint, Section } from '../controls/Section'
import { usePool, useSource } from '../../scene/openSceneContext'

/** What Welkinar has read from the photo by itself, to take or to dismiss; a mark that is set by hand goes before it. */
export function ReadingSection() {
  const pool = usePool()
  const source = useSource()
  const { busy, byItself } = useReading()
  const marks = source.marks ?? noMarks
  const { reading } = marks
  const isRead = reading !== null && reading.method !== NOT_READ
  const { change } = useScene.getState()
  const read = () => {
    readPhoto(pool, source.photo.id).catch((error: unknown) => showProblem(error, 'Reading the photo'))
  }
  const takeLight = (light: Reading['light']) => {
    if (light) markLight(pool, source, light, true).catch((error: unknown) => showProblem(error, 'Reading the light'))
  }
  const edit = (label: string, part: Partial<Reading>) =>
    change(label, (scene) => void (scene.marks.reading &&= { ...scene.marks.reading, ...part }))
  return (
    <Section
      title="Read from the photo"
      action={
        <Button variant="outlined" disabled={busy} onClick={read}>
          {busy ? 'Reading …' : isRead ? 'Read again' : 'Read the photo'}
        </Button>
      }
    >
      {!reading && <Hint>This scene is older than readings: without a mark, effects take the middle of the photo for the horizon.</Hint>}
      {reading && !isRead && <Hint>{busy ? 'It is being read.' : 'The photo has not been read yet.'}</Hint>}
      {reading && isRead && (
        <>
          <Row words={horizonInWords(reading, source.photo.height, marks.horizon !== null)}>
            {reading.horizon && !marks.horizon && (
              <>
                <Button
                  variant="text"
                  aria-label="Take the horizon as a mark"
                  onClick={() => change('Take the horizon', (scene) => void (scene.marks.horizon = horizonOf(scene.marks)))}
                >
                  Take
                </Button>
                <Button variant="text" aria-label="Dismiss the horizon" onClick={() => edit('Dismiss the horizon', { horizon: null })}>
                  Dismiss
                </Button>
              </>
            )}
          </Row>
          <Row words={reading.sky ? 'A sky, along its edges' : 'No sky was found'}>
            {reading.sky && (
              <Button variant="text" aria-label="Dismiss the sky" onClick={() => edit('Dismiss the sky', { sky: null })}>
                Dismiss
              </Button>
            )}
          </Row>
          <Row words={waterInWords(reading, source.photo.height, marks.waterline !== null)}>
            {reading.water && !marks.waterline && (
              <>
                <Button
                  variant="text"
                  aria-label="Take the waterline as a mark"
                  onClick={() => change('Take the waterline', (scene) => void (scene.marks.waterline = waterlineOf(scene.marks)))}
                >
                  Take
                </Button>
                <Button variant="text" aria-label="Dismiss the water" onClick={() => edit('Dismiss the water', { water: null })}>
                  Dismiss
                </Button>
              </>
            )}
          </Row>
          <Row words={lightInWords(reading, source.photo, marks.lights.length > 0)}>
            {reading.light && marks.lights.length === 0 && (
              <>
                <Button variant="text" aria-label="Take the light as a mark" onClick={() => takeLight(reading.light)}>
                  Take
                </Button>
                <Button variant="text" aria-label="Dismiss the light" onClick={() => edit('Dismiss the light', { light: null })}>
                  Dismiss
                </Button>
              </>
            )}
          </Row>
          <Row words={reading.distance ? 'How far everything is, roughly' : 'Distances: only from below to above'}>
            {reading.distance && (
              <Button variant="text" aria-label="Dismiss the distances" onClick={() => edit('Dismiss the distances', { distance: null })}>
                Dismiss
              </Button>
            )}
          </Row>
        </>
      )}
      <FormControlLabel
        control={<Switch checked={byItself} onChange={(_, on) => readByItself(on)} />}
        label="Read new photos on opening"
        slotProps={{ typography: { sx: { ml: 2 } } }}
        sx={{ m: 0 }}
      />
    </Section>
  )
}

function Row({ words, children }: { readonly words: string; readonly children?: ReactNode }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', minHeight: 32 }}>
      <Box sx={{ flex: 1, minWidth: 0 }}>{words}</Box>
      {children}
    </Box>
  )
}

function lightInWords({ light }: Reading, { width, height }: Size, marked: boolean): string {
  if (marked) return 'Lights are marked by hand'
  if (!light) return 'No light stands out'
  if (light.x < 0) return 'A light beyond the left border: the sky brightens there'
  if (light.y < 0) return 'A light above the photo: the sky brightens towards it'
  if (light.x > width) return 'A light beyond the right border: the sky brightens there'
  return `A light, ${Math.round((100 * light.y) / height)} % down`
}

function waterInWords({ water }: Reading, height: number, marked: boolean): string {
  if (marked) return 'The waterline is marked by hand'
  return water ? `Water or wet ground, from ${Math.round((100 * water.y) / height)} % down` : 'No water was found'
}

function horizonInWords({ horizon }: Reading, height: number, marked: boolean): string {
  if (marked) return 'The horizon is marked by hand'
  return horizon ? `A horizon, ${Math.round((100 * horizon.y) / height)} % down` : 'No horizon was found'
}
