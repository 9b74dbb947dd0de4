import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { brushControls, findOwner, pressureUses, toleranceControl, type BrushMask } from '@welkinar/core'
import { useEffect } from 'react'
import { Choice } from '../../../common/Choice'
import { SchemaNumber } from '../../controls/SchemaNumber'
import { useHint, useStrokeInWords } from '../../../keys/keymap'
import { freshBrush, useBrush, type BrushSettings } from '../../../scene/brush'
import { changeMask } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import { senseOf, turnBrush, type BrushSense } from '../../actions/brushSense'
import type { MaskEditorProps } from '../maskInterface'
import { ToolButton } from '../../controls/ToolButton'
import { useSource } from '../../../scene/openSceneContext'
import { TwoColumns } from '../../../common/TwoColumns'

const pressureLabels: Record<BrushSettings['pressure'], string> = { nothing: 'Nothing', size: 'Size', flow: 'Flow', both: 'Size and flow' }

/** The brush that the next stroke is painted with, and what has been painted. */
export function BrushEditor({ list, mask }: MaskEditorProps<BrushMask>) {
  const source = useSource()
  const brush = useBrush()
  const move = useStrokeInWords('hold-move')
  const [smaller, larger, eraser] = [useStrokeInWords('brush-smaller'), useStrokeInWords('brush-larger'), useStrokeInWords('eraser')]
  const paintsColour = source.effects.some(({ id, kind }) => id === list.owner && kind === 'glaze')
  const start = freshBrush(source.photo, paintsColour)
  const { width, height } = source.photo
  useEffect(() => useBrush.getState().fit({ width, height }, paintsColour), [width, height, paintsColour])
  const count = mask.strokes.length
  // What a shared one does is up to what reads it.
  const sense = list.list === 'where' && findOwner(source, list.owner) ? senseOf(mask) : undefined
  const turnHint = useHint('Whether what is painted keeps the effect, or loses it', 'brush-turn')
  return (
    <>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        <ToolButton tool={{ kind: 'paint' }} label="Paint" />
        <Button
          variant={brush.erase ? 'contained' : 'outlined'}
          aria-pressed={brush.erase}
          onClick={() => brush.set({ erase: !brush.erase })}
        >
          Eraser
        </Button>
        <Box sx={{ flex: 1, color: ink.secondary, textAlign: 'right' }}>{count === 1 ? '1 stroke' : `${count} strokes`}</Box>
      </Box>
      {sense && (
        <ToggleButtonGroup
          exclusive
          fullWidth
          size="small"
          aria-label="What painting does"
          value={sense}
          onChange={(_, chosen: BrushSense | null) => chosen && turnBrush(list, mask)}
        >
          <ToggleButton value="only here" title={turnHint}>
            Only here
          </ToggleButton>
          <ToggleButton value="not here" title={turnHint}>
            Not here
          </ToggleButton>
        </ToggleButtonGroup>
      )}
      <Box sx={{ display: 'flex', gap: 3, alignItems: 'center', minHeight: 48 }}>
        <Box component="label" sx={{ display: 'flex', alignItems: 'center', gap: 2, flex: 1 }}>
          <input type="checkbox" checked={brush.edges} onChange={(event) => brush.set({ edges: event.target.checked })} />
          Stops at edges
        </Box>
        {brush.edges && (
          <Box sx={{ flex: 1 }}>
            <SchemaNumber
              schema={toleranceControl}
              value={brush.tolerance}
              start={start.tolerance}
              onChange={(value) => brush.set({ tolerance: value })}
            />
          </Box>
        )}
      </Box>
      <TwoColumns>
        {(['size', 'hardness', 'flow', 'level'] as const).map((key) => (
          <SchemaNumber
            key={key}
            schema={brushControls[key]}
            value={brush[key]}
            start={start[key]}
            onChange={(value) => brush.set({ [key]: value })}
          />
        ))}
        <Choice
          label="Pen pressure changes"
          value={brush.pressure}
          options={pressureUses.map((use) => [use, pressureLabels[use]])}
          onChange={(value) => brush.set({ pressure: value as BrushSettings['pressure'] })}
        />
        <Button
          variant="outlined"
          disabled={count === 0}
          onClick={() => changeMask(list, mask, 'Clear what is painted', (target) => void (target.strokes = []))}
          sx={{ alignSelf: 'end' }}
        >
          Clear
        </Button>
      </TwoColumns>
      <Box sx={{ color: ink.secondary }}>
        {brush.edges && 'It keeps to what it begins on. '}Hold Shift for straight strokes.{' '}
        {[
          move && `${move} moves the photo.`,
          smaller && larger && `${smaller} and ${larger} change the size.`,
          eraser && `${eraser} takes the eraser.`,
        ]
          .filter(Boolean)
          .join(' ')}
      </Box>
    </>
  )
}
