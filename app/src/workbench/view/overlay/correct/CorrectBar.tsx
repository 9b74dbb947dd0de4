import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Tooltip from '@mui/material/Tooltip'
import type { Icon } from '@phosphor-icons/react'
import { Circle } from '@phosphor-icons/react/dist/csr/Circle'
import { CloudSun } from '@phosphor-icons/react/dist/csr/CloudSun'
import { Equals } from '@phosphor-icons/react/dist/csr/Equals'
import { LineSegment } from '@phosphor-icons/react/dist/csr/LineSegment'
import { PaintBrush } from '@phosphor-icons/react/dist/csr/PaintBrush'
import { ScribbleLoop } from '@phosphor-icons/react/dist/csr/ScribbleLoop'
import { definitionOf, type EffectKind } from '@welkinar/core'
import { correctionKinds, type Correction } from '../../../actions/corrections/correctHere'
import { chooseCorrection, useNextCorrection } from '../../../actions/corrections/lastCorrection'
import { correctionShapes, type CorrectionShape } from '../../../actions/corrections/shapes'
import { ToolHint } from '../../../onPhoto/ToolHint'

const shapes: Readonly<Record<CorrectionShape, readonly [word: string, Icon, hint: string]>> = {
  ellipse: ['Ellipse', Circle, 'Drag across the place. Shift makes a circle.'],
  line: ['Line', LineSegment, 'Drag from where it is full to where it ends.'],
  band: ['Band', Equals, 'Drag across the band, from side to side.'],
  outline: ['Outline', ScribbleLoop, 'Keep it pressed and go around the place.'],
  brush: ['Brush', PaintBrush, 'Paint the place.'],
  sky: ['Sky', CloudSun, 'Press on the photo: all of its sky.'],
}

/** What the next drag makes, and how to go on. */
export function CorrectBar({ correction }: { readonly correction: Correction | undefined }) {
  const { shape, kind, begins } = useNextCorrection()
  return (
    <ToolHint text={correction && !begins ? 'Pull the ring to change it.' : shapes[shape][2]}>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="Shape of the next correction"
        value={shape}
        onChange={(_, chosen: CorrectionShape | null) => chosen && chooseCorrection({ shape: chosen })}
      >
        {correctionShapes.map((one) => {
          const [word, Sign, hint] = shapes[one]
          return (
            <ToggleButton key={one} value={one} aria-label={word} sx={{ p: '4px 7px' }}>
              <Tooltip title={`${word}: ${hint}`}>
                <Sign size={17} />
              </Tooltip>
            </ToggleButton>
          )
        })}
      </ToggleButtonGroup>
      <Select
        value={kind}
        onChange={(event) => chooseCorrection({ kind: event.target.value as EffectKind })}
        SelectDisplayProps={{ 'aria-label': 'Kind of the next correction' }}
      >
        {correctionKinds.map((one) => (
          <MenuItem key={one} value={one}>
            {definitionOf(one).label}
          </MenuItem>
        ))}
      </Select>
      {correction?.mask.kind === 'brush' && (
        <Button variant="outlined" disabled={begins} onClick={() => chooseCorrection({ begins: true })}>
          Next one
        </Button>
      )}
    </ToolHint>
  )
}
