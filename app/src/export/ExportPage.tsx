import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import FormControlLabel from '@mui/material/FormControlLabel'
import LinearProgress from '@mui/material/LinearProgress'
import Switch from '@mui/material/Switch'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Typography from '@mui/material/Typography'
import {
  allColourSpaces,
  exportFormats,
  fileFormats,
  framedGraph,
  frameOfSource,
  colourSpaces,
  type BitDepth,
  type ExportFormat,
  type ExportOptions,
  type ColourSpace,
  type Scene,
  workingSpaceOf,
  outputOf,
  type OutputSize,
} from '@welkinar/core'
import { useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { bytesInWords } from '../common/files'
import { NumberControl } from '../common/NumberControl'
import { useScreenSize } from '../common/useScreenSize'
import { useScene } from '../scene/sceneStore'
import { ink } from '../theme'
import { LookPicture } from '../workbench/pictures/LookPicture'
import { SizeChoice } from './SizeChoice'
import { MotionChoice } from './MotionChoice'
import { moves } from './moves'
import { estimatedBytes, useExport, type Motion } from './useExport'
import { usePool } from '../scene/openSceneContext'

const START_QUALITY = 92
const DOING = 'Making the file'

/** The screen where a scene becomes a file: the scene as it is on the screen, saved or not. */
export function ExportPage() {
  const scene = useScene(({ history }) => history?.scene)
  return scene ? <Export scene={scene} /> : null
}

function Export({ scene }: { readonly scene: Scene }) {
  const pool = usePool()
  const [format, setFormat] = useState<ExportFormat>('png')
  const [keepsPlace, setKeepsPlace] = useState(true)
  const [quality, setQuality] = useState(START_QUALITY)
  const [space, setSpace] = useState<ColourSpace>(workingSpaceOf(scene.photo.id))
  const [wanted, setWanted] = useState<BitDepth>(8)
  const { progress, exported, start, cancel } = useExport(scene, pool)
  const [size, setSize] = useState<OutputSize>({ longSide: undefined, sharpened: true })
  const full = frameOfSource(scene)
  const { rect } = outputOf(scene, size)
  const chosen = fileFormats[format]
  const depth = chosen.depths.includes(wanted) ? wanted : 8
  const options = { format, quality, depth, space }
  const [wantedMotion, setMotion] = useState<Motion>()
  const canMove = format === 'png' && moves(scene)
  const motion = canMove ? wantedMotion : undefined
  return (
    <Box sx={{ height: '100%', display: 'flex' }}>
      <Pictures scene={scene} />
      <Box
        component="main"
        sx={{ width: 360, flex: 'none', p: 7, bgcolor: ink.paper, borderLeft: `1px solid ${ink.rule}`, overflowY: 'auto' }}
      >
        <Button component={Link} to={`/scene/${scene.id}`} variant="text" sx={{ ml: -3, mb: 3 }}>
          ← Workbench
        </Button>
        <Typography variant="h1" sx={{ mb: 1 }}>
          Export
        </Typography>
        <Typography sx={{ mb: 6, color: ink.secondary }}>{scene.name}</Typography>
        <ToggleButtonGroup
          exclusive
          fullWidth
          aria-label="Format"
          value={format}
          onChange={(_, next: ExportFormat | null) => next && setFormat(next)}
        >
          {exportFormats.map((one) => (
            <ToggleButton key={one} value={one}>
              {fileFormats[one].name}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Typography sx={{ mt: 2, mb: 4, color: ink.secondary, minHeight: 38 }}>{chosen.hint}</Typography>
        {chosen.depths.length > 1 && (
          <Box sx={{ mb: 4 }}>
            <ToggleButtonGroup
              exclusive
              fullWidth
              aria-label="Bits of a channel"
              value={depth}
              onChange={(_, next: BitDepth | null) => next && setWanted(next)}
            >
              {chosen.depths.map((one) => (
                <ToggleButton key={one} value={one}>
                  {one} bit
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
            <Typography sx={{ mt: 2, color: ink.secondary }}>
              {depth === 16 ? 'Fine steps for further work; a file two to three times as large.' : 'As screens show it, dithered.'}
            </Typography>
          </Box>
        )}
        <Box sx={{ mb: 4 }}>
          <ToggleButtonGroup
            exclusive
            fullWidth
            aria-label="Colour space"
            value={space}
            onChange={(_, next: ColourSpace | null) => next && setSpace(next)}
          >
            {allColourSpaces.map((one) => (
              <ToggleButton key={one} value={one}>
                {colourSpaces[one].label}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <Typography sx={{ mt: 2, color: ink.secondary }}>{colourSpaces[space].hint}</Typography>
        </Box>
        <SizeChoice full={full} made={rect} size={size} onChange={setSize} />
        {chosen.hasQuality && (
          <NumberControl
            control={{ label: 'Quality', unit: '', usual: [50, 100], step: 1 }}
            limits={{ least: 1, most: 100, whole: true }}
            value={quality}
            start={START_QUALITY}
            onChange={setQuality}
          />
        )}
        {canMove && <MotionChoice motion={motion} onChange={setMotion} />}
        {chosen.carriesExif && (
          <FormControlLabel
            control={<Switch checked={keepsPlace} onChange={(_, next) => setKeepsPlace(next)} />}
            label="Keep GPS location"
            sx={{ ml: 0, gap: 2, mt: 2 }}
          />
        )}
        {progress ? (
          <Box role="status" sx={{ mt: 4 }}>
            <Box sx={{ display: 'flex', mb: 2 }}>
              <Box sx={{ flex: 1 }}>{DOING} …</Box>
              {Math.round(progress.done * 100)} %
            </Box>
            <LinearProgress aria-label={DOING} variant="determinate" value={progress.done * 100} />
            <Button variant="outlined" onClick={cancel} sx={{ mt: 4 }}>
              Cancel
            </Button>
          </Box>
        ) : (
          <Button
            variant="contained"
            fullWidth
            sx={{ mt: 4, minHeight: 40 }}
            onClick={() => void start({ options, size, keepsPlace, motion })}
          >
            Make the {chosen.name} file
          </Button>
        )}
        {!progress && (
          <Estimate scene={scene} size={size} options={options} frames={motion ? Math.round(motion.seconds * motion.rate) : 1} />
        )}
        {exported && (
          <Box role="status" sx={{ mt: 5, pt: 4, borderTop: `1px solid ${ink.rule}` }}>
            <b>{exported.fileName}</b>
            <Box sx={{ color: ink.secondary }}>
              {bytesInWords(exported.bytes)}, made in {exported.seconds.toFixed(1)} s. It is among your downloads.
            </Box>
          </Box>
        )}
      </Box>
    </Box>
  )
}

interface EstimateProps {
  readonly scene: Scene
  readonly size: OutputSize
  readonly options: ExportOptions
  readonly frames: number
}

/** About how large the file will be. */
function Estimate({ scene, size, options, frames }: EstimateProps) {
  const pool = usePool()
  const output = outputOf(scene, size)
  const { rect } = output
  const { data } = useQuery({
    queryKey: ['size of the file', output.node.key, rect.width, rect.height, options],
    queryFn: ({ signal }) => estimatedBytes(output, options, pool, signal),
    placeholderData: (earlier) => earlier,
    gcTime: 30_000,
  })
  return <Box sx={{ mt: 2, minHeight: 18, color: ink.secondary }}>{data !== undefined && `About ${bytesInWords(data * frames)}`}</Box>
}

/** The whole picture, and a part of it pixel for pixel, as large as there is room. */
function Pictures({ scene }: { readonly scene: Scene }) {
  const [close, setClose] = useState(false)
  const place = useRef<HTMLDivElement>(null)
  const room = useScreenSize(place)
  const frame = frameOfSource(scene)
  const shape = frame.width / frame.height
  const width = room && Math.max(1, Math.floor(Math.min(room.width, room.height * shape)))
  return (
    <Box
      component="section"
      aria-label="Pictures"
      sx={{ flex: 1, minWidth: 0, bgcolor: ink.surround, display: 'flex', flexDirection: 'column', alignItems: 'center', gap: 4, p: 4 }}
    >
      <Box ref={place} sx={{ flex: 1, minHeight: 0, width: '100%', display: 'grid', placeContent: 'center', overflow: 'hidden' }}>
        {width && (
          <LookPicture
            node={framedGraph(scene)}
            photo={scene.photo}
            frame={frame}
            width={width}
            height={Math.max(1, Math.round(width / shape))}
            part={close ? Math.min(1, width / window.devicePixelRatio / frame.width) : 1}
            label="The finished picture"
          />
        )}
      </Box>
      <ToggleButtonGroup
        exclusive
        value={close}
        aria-label="Part shown"
        onChange={(_, next: boolean | null) => next !== null && setClose(next)}
        sx={{ bgcolor: ink.paper }}
      >
        <ToggleButton value={false}>Whole</ToggleButton>
        <ToggleButton value={true}>1:1, middle</ToggleButton>
      </ToggleButtonGroup>
    </Box>
  )
}
