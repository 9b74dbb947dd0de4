import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { choiceOf, controlOf, definitionOf, isFollowing, markedPoint, noMarks, schemaAt, type Effect } from '@welkinar/core'
import { useState } from 'react'
import { changeEffect, useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { readWord } from './paths'
import { SchemaControl } from './SchemaControl'

interface FieldControlsProps {
  readonly effect: Effect
  readonly step: 'pattern' | 'shape'
}

const twoColumns = { display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 4, rowGap: 1 }

/** The numbers and choices of one step that are not dials, in the order of the schema. */
export function FieldControls({ effect, step }: FieldControlsProps) {
  const { controls, dials, applies } = definitionOf(effect.kind)
  const marks = useScene(({ history }) => history?.scene.marks) ?? noMarks
  // While the origin follows a mark, its own place does not count.
  const followed = markedPoint(marks, readWord(effect.controls, 'pattern.follows') || null) !== undefined
  const paths = Object.keys(effect.controls[step]).map((key) => `${step}.${key}`)
  const hasSeed = 'seed' in effect.controls[step]
  const shown = paths.filter((path) => !dials.includes(path) && (applies?.(path, effect.controls) ?? true) && !(followed && isOrigin(path)))
  // What is chosen decides which numbers there are, so it comes first.
  const choices = shown.filter((path) => choiceOf(schemaAt(controls, path)) ?? isFollowing(schemaAt(controls, path)))
  const numbers = shown.filter((path) => controlOf(schemaAt(controls, path)))
  return (
    <>
      {choices.length + numbers.length === 0 && paths.every((path) => controlOf(schemaAt(controls, path))) && (
        <Box sx={{ color: ink.secondary }}>The dials above steer all of this step.</Box>
      )}
      <Box sx={twoColumns}>
        {choices.map((path) => (
          <Box key={path} sx={{ gridColumn: '1 / -1' }}>
            <SchemaControl effect={effect} path={path} />
          </Box>
        ))}
        {numbers.map((path) => (
          <SchemaControl key={path} effect={effect} path={path} />
        ))}
      </Box>
      {hasSeed && (
        <Button variant="outlined" onClick={() => newSeed(effect)} sx={{ justifySelf: 'start' }}>
          Another seed
        </Button>
      )}
    </>
  )
}

function isOrigin(path: string): boolean {
  return path === 'pattern.x' || path === 'pattern.y'
}

function newSeed(effect: Effect): void {
  changeEffect(effect.id, 'Another seed', (one) => {
    const pattern = one.controls.pattern as { seed: number }
    pattern.seed = Math.floor(Math.random() * 10000)
  })
}

/** The layers of a pattern that has them, one at a time. */
export function PerLayerControls({ effect }: { readonly effect: Effect }) {
  const [shown, setShown] = useState(0)
  const { perLayer, layers } = effect.controls.pattern as { perLayer?: object[]; layers?: number }
  const layer = perLayer?.[shown]
  if (!perLayer || !layer || definitionOf(effect.kind).applies?.('pattern.perLayer', effect.controls) === false) return null
  const used = layers ?? perLayer.length
  return (
    <Box role="group" aria-label="Layers" sx={{ borderTop: `1px solid ${ink.rule}`, pt: 3, mt: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', mb: 2 }}>
        <Box>Layer, far to near</Box>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={shown}
          onChange={(_, next: number | null) => next !== null && setShown(next)}
          aria-label="Layer"
        >
          {perLayer.map((_, index) => (
            <ToggleButton
              key={index}
              value={index}
              aria-label={`Layer ${index + 1}`}
              sx={{ color: index < used ? ink.ink : ink.secondary }}
            >
              {index + 1}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Box>
      {shown < used ? (
        <Box sx={twoColumns}>
          {Object.keys(layer).map((key) => (
            <SchemaControl key={key} effect={effect} path={`pattern.perLayer.${shown}.${key}`} />
          ))}
        </Box>
      ) : (
        <Box sx={{ color: ink.secondary }}>Not in use: raise Depth layers to {shown + 1}.</Box>
      )}
    </Box>
  )
}
