import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { cropScene, cropSchema, frameOfSource, horizonOf, noMarks } from '@welkinar/core'
import { Choice } from '../../common/Choice'
import { SchemaNumber } from '../controls/SchemaNumber'
import { useScene } from '../../scene/sceneStore'
import { ink } from '../../theme'
import { Section } from '../controls/Section'
import { cropOf, setShape, setTurn } from '../actions/cropping'
import { useSource } from '../../scene/openSceneContext'

const shapes: readonly (readonly [string, string, number | undefined])[] = [
  ['free', 'Free', undefined],
  ['photo', 'As the photo', 0],
  ['1:1', '1 : 1', 1],
  ['5:4', '5 : 4', 5 / 4],
  ['4:3', '4 : 3', 4 / 3],
  ['3:2', '3 : 2', 3 / 2],
  ['16:9', '16 : 9', 16 / 9],
  ['2:1', '2 : 1', 2],
  ['4:5', '4 : 5', 4 / 5],
  ['3:4', '3 : 4', 3 / 4],
  ['2:3', '2 : 3', 2 / 3],
  ['9:16', '9 : 16', 9 / 16],
]

/** Crop and straighten. */
export function FrameSection() {
  const source = useSource()
  const tool = useScene((state) => state.tool?.kind)
  const cropShape = useScene((state) => state.cropShape)
  const { photo } = source
  const { crop } = source.groundwork ?? { crop: null }
  const { width, height } = frameOfSource(source)
  const horizon = horizonOf(source.marks ?? noMarks)
  const turn = cropOf(source).turn
  const { set, change } = useScene.getState()
  const shapeOf = (value: number | undefined): number | undefined => (value === 0 ? photo.width / photo.height : value)
  const chosen = shapes.find(([, , value]) => shapeOf(value) === cropShape)?.[0] ?? 'free'
  return (
    <Section title="Frame">
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap' }}>
        <Button
          variant={tool === 'crop' ? 'contained' : 'outlined'}
          aria-pressed={tool === 'crop'}
          onClick={() =>
            set({
              tool: tool === 'crop' ? undefined : { kind: 'crop' },
              place: { ...useScene.getState().place, zoom: 'fit' },
              compare: 'after',
            })
          }
        >
          {tool === 'crop' ? 'Keep this crop' : 'Crop'}
        </Button>
        <Button
          variant={tool === 'level' ? 'contained' : 'outlined'}
          aria-pressed={tool === 'level'}
          onClick={() => set({ tool: tool === 'level' ? undefined : { kind: 'level' } })}
        >
          Level by a line
        </Button>
        {horizon && Math.abs(horizon.turn + turn) > 0.05 && (
          <Button variant="outlined" onClick={() => setTurn(source, -horizon.turn)}>
            Level the horizon
          </Button>
        )}
      </Box>
      <SchemaNumber
        schema={cropSchema.shape.turn}
        value={turn}
        start={0}
        onChange={(value, gesture) => setTurn(source, value, gesture && `straighten ${gesture}`)}
      />
      {tool === 'crop' && (
        <Choice
          label="Shape"
          value={chosen}
          options={shapes.map(([id, words]) => [id, words] as const)}
          onChange={(id) => {
            const shape = shapeOf(shapes.find(([one]) => one === id)?.[2])
            set({ cropShape: shape })
            if (shape !== undefined) setShape(source, shape)
          }}
        />
      )}
      <Box sx={{ display: 'flex', alignItems: 'center', color: ink.secondary, minHeight: 32 }}>
        <Box sx={{ flex: 1 }}>
          {width} × {height} px
        </Box>
        {crop && (
          <Button variant="text" onClick={() => change('Show the whole photo', (scene) => cropScene(scene, null))}>
            Show it all
          </Button>
        )}
      </Box>
    </Section>
  )
}
