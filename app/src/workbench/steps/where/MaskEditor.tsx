import Box from '@mui/material/Box'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import { maskContext, maskDefinitionOf, maskProblem, type Mask, type Owner, type PictureSource } from '@welkinar/core'
import type { RenderPool } from '@welkinar/core/pool'
import { changeMask } from '../../../scene/sceneStore'
import { ink } from '../../../theme'
import { BandEditor, EllipseEditor, LineEditor } from './kinds/FollowingEditors'
import { BrushEditor } from './kinds/BrushEditor'
import { ColourEditor } from './kinds/ColourEditor'
import { DepthEditor } from './kinds/DepthEditor'
import { LuminosityEditor } from './kinds/LuminosityEditor'
import { OutlineEditor } from './kinds/OutlineEditor'
import { PatternEditor } from './kinds/PatternEditor'
import { PictureEditor } from './kinds/PictureEditor'
import { SimilarEditor } from './kinds/SimilarEditor'
import { MaskNumber, MaskNumbers } from './MaskNumbers'

export interface MaskEditorProps<M extends Mask = Mask> {
  readonly pool: RenderPool
  readonly source: PictureSource
  readonly owner: Owner
  readonly mask: M
}

/** The chosen mask: what its kind has, and what every mask has. */
export function MaskEditor(props: MaskEditorProps) {
  const { source, owner, mask } = props
  const { label } = maskDefinitionOf(mask.kind)
  const problem = maskProblem(mask, maskContext(source, owner.id))
  return (
    <Box
      role="group"
      aria-label={`${label} mask`}
      sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2, borderTop: `1px solid ${ink.rule}`, pt: 3, mt: 1 }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <Box component="h4" sx={{ m: 0, flex: 1, fontSize: 13, fontWeight: 650 }}>
          {label}
        </Box>
        <FormControlLabel
          control={
            <Switch
              checked={mask.invert}
              onChange={(_, invert) => changeMask(owner.id, mask, 'Mask: invert', (target) => void (target.invert = invert))}
            />
          }
          label="Invert"
          labelPlacement="start"
          slotProps={{ typography: { sx: { mr: 2 } } }}
          sx={{ m: 0 }}
        />
      </Box>
      {problem && (
        <Box role="status" sx={{ borderLeft: `3px solid ${ink.accent}`, pl: 2 }}>
          {problem}
        </Box>
      )}
      <KindEditor {...props} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 4, rowGap: 1 }}>
        {(['feather', 'strength', 'grow', 'edges'] as const).map((key) => (
          <MaskNumber key={key} source={source} owner={owner} mask={mask} name={key} />
        ))}
      </Box>
    </Box>
  )
}

function KindEditor({ mask, ...rest }: MaskEditorProps) {
  switch (mask.kind) {
    case 'luminosity':
      return <LuminosityEditor {...rest} mask={mask} />
    case 'colour':
      return <ColourEditor {...rest} mask={mask} />
    case 'ellipse':
      return <EllipseEditor {...rest} mask={mask} />
    case 'line':
      return <LineEditor {...rest} mask={mask} />
    case 'band':
      return <BandEditor {...rest} mask={mask} />
    case 'outline':
      return <OutlineEditor {...rest} mask={mask} />
    case 'brush':
      return <BrushEditor {...rest} mask={mask} />
    case 'similar':
      return <SimilarEditor {...rest} mask={mask} />
    case 'depth':
      return <DepthEditor {...rest} mask={mask} />
    case 'pattern':
      return <PatternEditor {...rest} mask={mask} />
    case 'picture':
      return <PictureEditor {...rest} mask={mask} />
    case 'frame':
    case 'sky':
    case 'cloud':
      return <MaskNumbers {...rest} mask={mask} />
  }
}
