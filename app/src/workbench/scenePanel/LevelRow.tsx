import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { controlOf, limitsOf, levelSchema, type LevelMark } from '@welkinar/core'
import { NumberControl } from '../../common/NumberControl'
import { useScene } from '../../scene/sceneStore'

interface LevelRowProps {
  readonly mark: 'horizon' | 'waterline'
  readonly level: LevelMark | null
}

/** Slope of a line across the photo, and how to take it away. */
export function LevelRow({ mark, level }: LevelRowProps) {
  const { change } = useScene.getState()
  const control = controlOf(levelSchema.shape.turn)
  if (!level || !control) return null
  return (
    <Box sx={{ display: 'flex', gap: 3, alignItems: 'end' }}>
      <Box sx={{ flex: 1 }}>
        <NumberControl
          control={{ ...control, usual: [-15, 15] }}
          limits={limitsOf(levelSchema.shape.turn)}
          value={level.turn}
          start={0}
          onChange={(turn, gesture) =>
            change(`Slope of the ${mark}`, ({ marks }) => void (marks[mark] = { ...level, turn }), gesture && `${mark} ${gesture}`)
          }
        />
      </Box>
      <Button variant="text" onClick={() => change(`Remove the ${mark}`, ({ marks }) => void (marks[mark] = null))}>
        Remove
      </Button>
    </Box>
  )
}
