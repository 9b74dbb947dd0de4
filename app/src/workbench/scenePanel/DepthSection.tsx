import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { controlOf, depthSchema, hardRange, sceneGraph, type DepthPicture, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { Choice } from '../../common/Choice'
import { NumberControl } from '../../common/NumberControl'
import { showNotice, showProblem } from '../../common/notices'
import { useScene } from '../../scene/sceneStore'
import { importPicture } from '../importPicture'
import { LookPicture } from '../LookPicture'
import { Hint, Section } from './Section'

interface DepthSectionProps {
  readonly pool: RenderPool
  readonly source: PictureSource
}

/** A grey picture of distances for the scene. */
export function DepthSection({ pool, source }: DepthSectionProps) {
  const { depth, photo } = source
  const { change } = useScene.getState()
  const choose = () => {
    importPicture(photo.id)
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
  return (
    <Section
      title="Depth"
      action={
        <Button variant="outlined" onClick={choose}>
          {depth ? 'Other picture' : 'Import a picture'}
        </Button>
      }
    >
      {depth ? (
        <DepthControls pool={pool} source={source} depth={depth} />
      ) : (
        <Hint>A grey picture, 8 or 16 bit, in which near is white or black.</Hint>
      )}
    </Section>
  )
}

function DepthControls({ pool, source, depth }: DepthSectionProps & { readonly depth: DepthPicture }) {
  const { change } = useScene.getState()
  const edit = (label: string, part: Partial<DepthPicture>, gesture?: string) =>
    change(label, (scene) => void (scene.depth = { ...depth, ...part }), gesture && `depth ${gesture}`)
  const picture = { ...source, photo: { ...source.photo, id: depth.picture.id } }
  const width = 286
  return (
    <>
      <LookPicture
        pool={pool}
        node={sceneGraph(picture, { kind: 'photo' })}
        photo={source.photo}
        width={width}
        height={Math.round((width * source.photo.height) / source.photo.width)}
        label="The depth picture"
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 4, rowGap: 1 }}>
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
        {(['nearDistance', 'farDistance'] as const).map((key) => {
          const control = controlOf(depthSchema.shape[key])
          return (
            control && (
              <NumberControl
                key={key}
                control={control}
                hard={hardRange(depthSchema.shape[key])}
                value={depth[key]}
                start={key === 'nearDistance' ? 2 : 2000}
                onChange={(value, gesture) => edit(`Depth: ${control.label}`, { [key]: value }, gesture)}
              />
            )
          )
        })}
      </Box>
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
