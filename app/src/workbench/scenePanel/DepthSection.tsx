import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import type { controlOf } from '@welkinar/core'
import { depthSchema, groundSchema, hazeMarkSchema, knowsDistance, noMarks, type DepthPicture, type PictureSource } from '@welkinar/core'
import { Choice } from '../../common/Choice'
import { SchemaNumber } from '../controls/SchemaNumber'
import { showNotice, showProblem } from '../../common/notices'
import { useScene } from '../../scene/sceneStore'
import { importPicture } from '../actions/importPicture'
import { ToolButton } from '../controls/ToolButton'
import { DistancePicture } from './DistancePicture'
import { RegionRow } from './RegionRow'
import { Hint, Section } from '../controls/Section'
import { weight } from '../../theme'
import { useSource } from '../../scene/openSceneContext'
import { TwoColumns } from '../../common/TwoColumns'

/** How far away things are: from the horizon, a grey picture, outlined regions, or haze. */
export function DepthSection() {
  const source = useSource()
  const { depth, photo } = source
  const { change } = useScene.getState()
  const choose = () => {
    importPicture()
      .then((picture) => {
        if (!picture) return
        change('Depth picture', (scene) => {
          const kept = scene.depth ?? { near: 'white', nearDistance: 2, farDistance: 2000, steps: 'inverse' }
          scene.depth = { ...kept, picture }
        })
        const stretched = Math.abs(picture.width / picture.height / (photo.width / photo.height) - 1) > 0.01
        if (stretched) showNotice(`“${picture.fileName}” has other proportions than the photo; it is stretched to fit.`)
      })
      .catch((error: unknown) => showProblem(error, 'Opening the depth picture'))
  }
  const { regions, horizon, haze } = source.marks ?? noMarks
  return (
    <Section
      title="Depth"
      action={
        <Button variant="outlined" onClick={choose}>
          {depth ? 'Import another' : 'Import a depth map'}
        </Button>
      }
    >
      <Hint>{depthInWords(source)}</Hint>
      {knowsDistance(source.marks ?? noMarks, depth) && <DistancePicture />}
      {depth && <DepthControls depth={depth} />}
      {!depth && <EstimateControls />}
      {!depth && !haze && horizon && <GroundControls />}
      <Box sx={{ display: 'flex', alignItems: 'center', minHeight: 32 }}>
        <Box component="h4" sx={{ m: 0, flex: 1, fontSize: 13, fontWeight: weight.strong }}>
          Regions
        </Box>
        <ToolButton tool={{ kind: 'region' }} label="Outline one" />
      </Box>
      {regions.length === 0 && (
        <Hint>Outline what stands at one distance: it lies over the rest, and hides drops and flakes behind it.</Hint>
      )}
      {regions.map((region) => (
        <RegionRow key={region.id} region={region} />
      ))}
    </Section>
  )
}

function depthInWords({ depth, marks = noMarks }: PictureSource): string {
  if (depth) return 'From a grey picture, 8 or 16 bit, in which near is white or black.'
  if (marks.haze) return 'Estimated from the haze in the photo.'
  if (marks.horizon) return 'Level ground under the horizon mark.'
  if (marks.reading?.distance) return 'As it was read from the photo. A horizon mark, regions, a grey picture or haze tell more.'
  return 'Set the horizon, outline regions, import a grey picture, or let it be estimated from haze.'
}

/** Camera height and focal length, which make distances of the ground under the horizon. */
function GroundControls() {
  const source = useSource()
  const ground = (source.marks ?? noMarks).ground
  return (
    <MarkNumbers
      schema={groundSchema}
      value={ground}
      start={noMarks.ground}
      onChange={(key, label, value, gesture) =>
        useScene
          .getState()
          .change(label, ({ marks }) => void (marks.ground = { ...ground, [key]: value }), gesture && `ground ${key} ${gesture}`)
      }
    />
  )
}

const HAZE_START = { visibility: 2000, air: 85 }

/** Whether distances are read from haze, and from how much of it. */
function EstimateControls() {
  const source = useSource()
  const { haze } = source.marks ?? noMarks
  const { change } = useScene.getState()
  return (
    <>
      <FormControlLabel
        control={
          <Switch
            checked={haze !== null}
            onChange={(_, on) => change('Estimate the depth', ({ marks }) => void (marks.haze = on ? HAZE_START : null))}
          />
        }
        label="Estimate it from haze"
        slotProps={{ typography: { sx: { ml: 2 } } }}
        sx={{ ml: 0 }}
      />
      {haze && (
        <>
          <Hint>Only for photos with haze in them; in clear air and at night it reads darkness as nearness.</Hint>
          <MarkNumbers
            schema={hazeMarkSchema}
            value={haze}
            start={HAZE_START}
            onChange={(key, label, value, gesture) =>
              change(label, ({ marks }) => void (marks.haze = { ...haze, [key]: value }), gesture && `haze ${key} ${gesture}`)
            }
          />
        </>
      )}
    </>
  )
}

interface MarkNumbersProps<T extends Readonly<Record<string, number>>> {
  readonly schema: { readonly shape: Readonly<Record<keyof T & string, Parameters<typeof controlOf>[0]>> }
  readonly value: T
  readonly start: T
  onChange(key: keyof T & string, label: string, value: number, gesture?: string): void
}

function MarkNumbers<T extends Readonly<Record<string, number>>>({ schema, value, start, onChange }: MarkNumbersProps<T>) {
  return (
    <TwoColumns>
      {(Object.keys(value) as (keyof T & string)[]).map((key) => (
        <SchemaNumber
          key={key}
          schema={schema.shape[key]}
          value={value[key] ?? 0}
          start={start[key] ?? 0}
          onChange={(next, gesture, label) => onChange(key, `Depth: ${label}`, next, gesture)}
        />
      ))}
    </TwoColumns>
  )
}

function DepthControls({ depth }: { readonly depth: DepthPicture }) {
  const { change } = useScene.getState()
  const edit = (label: string, part: Partial<DepthPicture>, gesture?: string) =>
    change(label, (scene) => void (scene.depth = { ...depth, ...part }), gesture && `depth ${gesture}`)
  return (
    <>
      <TwoColumns>
        <Choice
          label="Near is"
          value={depth.near}
          options={[
            ['white', 'White'],
            ['black', 'Black'],
          ]}
          onChange={(near) => edit('Depth: near is', { near: near as DepthPicture['near'] })}
        />
        <Choice
          label="Even steps of"
          value={depth.steps}
          options={[
            ['inverse', '1 / distance'],
            ['distance', 'Distance'],
          ]}
          onChange={(steps) => edit('Depth: steps', { steps: steps as DepthPicture['steps'] })}
        />
        {(['nearDistance', 'farDistance'] as const).map((key) => (
          <SchemaNumber
            key={key}
            schema={depthSchema.shape[key]}
            value={depth[key]}
            start={key === 'nearDistance' ? 2 : 2000}
            onChange={(value, gesture, label) => edit(`Depth: ${label}`, { [key]: value }, gesture)}
          />
        ))}
      </TwoColumns>
      <Button
        variant="text"
        onClick={() => change('Remove the depth picture', (scene) => void (scene.depth = null))}
        sx={{ justifySelf: 'start' }}
      >
        Remove
      </Button>
    </>
  )
}
