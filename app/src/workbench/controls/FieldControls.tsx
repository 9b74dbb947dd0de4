import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import {
  choiceOf,
  colourLabelOf,
  controlOf,
  definitionOf,
  isFollowing,
  markedPoint,
  noMarks,
  readWord,
  rolesOf,
  schemaAt,
  writePath,
  type Effect,
} from '@welkinar/core'
import { changeEffect, useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { SchemaControl } from './SchemaControl'
import { TwoColumns } from '../../common/TwoColumns'

interface FieldControlsProps {
  readonly effect: Effect
  readonly step: 'pattern' | 'shape'
}

/** The numbers and choices of one step that are not dials, in the order of the schema. */
export function FieldControls({ effect, step }: FieldControlsProps) {
  const { controls, dials, applies } = definitionOf(effect.kind)
  const marks = useScene(({ history }) => history?.scene.marks) ?? noMarks
  // While the origin follows a mark, its own place does not count.
  const followed = markedPoint(marks, readWord(effect.controls, 'pattern.follows') || null) !== undefined
  const paths = Object.keys(effect.controls[step]).map((key) => `${step}.${key}`)
  const seed = paths.find((path) => rolesOf(schemaAt(controls, path)).noise === 'seed' && (applies?.(path, effect.controls) ?? true))
  const shown = paths.filter((path) => !dials.includes(path) && (applies?.(path, effect.controls) ?? true) && !(followed && isOrigin(path)))
  // What is chosen decides which numbers there are, so it comes first.
  const choices = shown.filter((path) => choiceOf(schemaAt(controls, path)) ?? isFollowing(schemaAt(controls, path)))
  const numbers = shown.filter((path) => controlOf(schemaAt(controls, path)))
  const colours = shown.filter((path) => colourLabelOf(schemaAt(controls, path)))
  return (
    <>
      {choices.length + numbers.length === 0 && paths.every((path) => controlOf(schemaAt(controls, path))) && (
        <Box sx={{ color: ink.secondary }}>The dials above steer all of this step.</Box>
      )}
      <TwoColumns>
        {choices.map((path) => (
          <Box key={path} sx={{ gridColumn: '1 / -1' }}>
            <SchemaControl effect={effect} path={path} />
          </Box>
        ))}
        {colours.map((path) => (
          <Box key={path} sx={{ gridColumn: '1 / -1' }}>
            <SchemaControl effect={effect} path={path} />
          </Box>
        ))}
        {numbers.map((path) => (
          <SchemaControl key={path} effect={effect} path={path} />
        ))}
      </TwoColumns>
      {seed && (
        <Button variant="outlined" onClick={() => newSeed(effect, seed)} sx={{ justifySelf: 'start' }}>
          Another seed
        </Button>
      )}
    </>
  )
}

function isOrigin(path: string): boolean {
  return path === 'pattern.x' || path === 'pattern.y'
}

function newSeed(effect: Effect, path: string): void {
  changeEffect(effect.id, 'Another seed', ({ controls }) => writePath(controls, path, Math.floor(Math.random() * 10000)))
}
