import Box from '@mui/material/Box'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { definitionOf, nameOfEffect, sceneGraph, type Effect, type GraphNode } from '@welkinar/core'
import { useRef, useState, type ReactNode } from 'react'
import { useParams } from 'react-router'
import { ErrorPage } from '../common/ErrorPage'
import type { EffectOf } from '../scene/sceneStore'
import { ink, PANEL_WIDTH, weight } from '../theme'
import { FieldSource } from '../workbench/kinds/customField/FieldSource'
import { FieldSteps } from '../workbench/kinds/customField/FieldSteps'
import { LookPicture } from '../workbench/pictures/LookPicture'
import { FieldControls } from '../workbench/controls/FieldControls'
import { SchemaControl } from '../workbench/controls/SchemaControl'
import { useScreenSize } from '../common/useScreenSize'
import { usePictureSource } from '../workbench/pictures/usePictureSource'
import { FieldMeasures } from './FieldMeasures'
import { SceneBar } from '../scene/SceneBar'
import { SourceContext, useSource } from '../scene/openSceneContext'
import { TwoColumns } from '../common/TwoColumns'

/** The screen where a custom field is made: the field at full size, all that it is made from, its histogram and its spectrum. */
export function FieldStudioPage() {
  const { id = '', effectId = '' } = useParams()
  const source = usePictureSource()
  if (!source) return null
  const effect = source.effects.find((one) => one.id === effectId)
  if (effect?.kind !== 'customField') return <ErrorPage message="This scene has no custom field of that address." />
  return (
    <SourceContext value={source}>
      <Studio effect={effect} sceneId={id} />
    </SourceContext>
  )
}

const looks = [
  ['pattern', 'Raw'],
  ['shape', 'Shaped'],
  ['colour', 'In colour'],
  ['mix', 'In the photo'],
] as const
type StudioLook = (typeof looks)[number][0]

interface StudioProps {
  readonly effect: EffectOf<'customField'>
  readonly sceneId: string
}

function Studio({ effect, sceneId }: StudioProps) {
  const source = useSource()
  const [look, setLook] = useState<StudioLook>('shape')
  const [close, setClose] = useState(false)
  const node = sceneGraph(source, { kind: 'step', effectId: effect.id, step: look })
  return (
    <Box sx={{ height: '100%', display: 'flex' }}>
      <Box component="main" sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
        <SceneBar sceneId={sceneId} title="Field studio" about={nameOfEffect(effect)}>
          <ToggleButtonGroup
            exclusive
            size="small"
            aria-label="What is shown"
            value={look}
            onChange={(_, next: StudioLook | null) => next && setLook(next)}
          >
            {looks.map(([value, label]) => (
              <ToggleButton key={value} value={value}>
                {label}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <ToggleButton value="close" size="small" selected={close} onChange={() => setClose(!close)}>
            1:1
          </ToggleButton>
        </SceneBar>
        <Field node={node} close={close} />
      </Box>
      <Box
        component="aside"
        aria-label="The field"
        sx={{ width: PANEL_WIDTH, flex: 'none', overflowY: 'auto', borderLeft: `1px solid ${ink.rule}`, bgcolor: ink.paper, px: 4, py: 4 }}
      >
        <FieldMeasures effect={effect} look={look === 'pattern' ? 'pattern' : 'shape'} />
        <Section title="The field">
          <TwoColumns>
            <Dials effect={effect} />
          </TwoColumns>
          <FieldControls effect={effect} step="pattern" />
          <FieldSource effect={effect} />
        </Section>
        <Section title="Operations">
          <FieldSteps effect={effect} photo={source.photo} />
        </Section>
      </Box>
    </Box>
  )
}

function Dials({ effect }: { readonly effect: Effect }) {
  const { dials, applies } = definitionOf(effect.kind)
  return dials
    .filter((path) => applies?.(path, effect.controls) ?? true)
    .map((path) => <SchemaControl key={path} effect={effect} path={path} />)
}

function Section({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{ borderTop: `1px solid ${ink.rule}`, pt: 3, mt: 4, display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}
    >
      <Box component="h2" sx={{ m: 0, fontSize: 13, fontWeight: weight.strong }}>
        {title}
      </Box>
      {children}
    </Box>
  )
}

const MARGIN = 24

interface FieldProps {
  readonly node: GraphNode
  readonly close: boolean
}

/** The field as large as there is room; close up, its middle pixel for pixel. */
function Field({ node, close }: FieldProps) {
  const source = useSource()
  const frame = useRef<HTMLDivElement>(null)
  const room = useScreenSize(frame)
  const { photo } = source
  const scale = room && Math.min((room.width - 2 * MARGIN) / photo.width, (room.height - 2 * MARGIN) / photo.height)
  const [width, height] = scale ? [Math.floor(photo.width * scale), Math.floor(photo.height * scale)] : [0, 0]
  return (
    <Box ref={frame} sx={{ flex: 1, minHeight: 0, bgcolor: ink.surround, display: 'grid', placeItems: 'center', overflow: 'hidden' }}>
      {width > 0 && (
        <LookPicture
          node={node}
          photo={photo}
          width={width}
          height={height}
          part={close ? Math.min(1, (width * window.devicePixelRatio) / photo.width) : 1}
          label="The field"
        />
      )}
    </Box>
  )
}
