import type { Mask, MaskKind } from '@welkinar/core'
import { MaskNumbers } from '../controls/MaskNumbers'
import { BandEditor } from './band/BandEditor'
import { BandHandles } from './band/BandHandles'
import { BrushEditor } from './brush/BrushEditor'
import { BrushTool } from './brush/BrushSurface'
import { ColourEditor } from './colour/ColourEditor'
import { DepthEditor } from './depth/DepthEditor'
import { EllipseEditor } from './ellipse/EllipseEditor'
import { EllipseHandles } from './ellipse/EllipseHandles'
import { FrameHandles } from './frame/FrameHandles'
import { LineEditor } from './line/LineEditor'
import { LineHandles } from './line/LineHandles'
import { LuminosityEditor } from './luminosity/LuminosityEditor'
import type { MaskInterface } from './maskInterface'
import { OutlineEditor } from './outline/OutlineEditor'
import { MaskOutlines, OutlineTool } from './outline/OutlineHandles'
import { PatternEditor } from './pattern/PatternEditor'
import { PictureEditor } from './picture/PictureEditor'
import { SharedEditor } from './shared/SharedEditor'
import { SimilarEditor } from './similar/SimilarEditor'
import { TapHandles, TapTool } from './similar/TapHandles'

const interfaces: { readonly [K in MaskKind]: MaskInterface<Extract<Mask, { kind: K }>> } = {
  luminosity: { Editor: LuminosityEditor },
  sky: { Editor: MaskNumbers },
  colour: { Editor: ColourEditor },
  ellipse: { Editor: EllipseEditor, Handles: EllipseHandles },
  line: { Editor: LineEditor, Handles: LineHandles },
  band: { Editor: BandEditor, Handles: BandHandles },
  frame: { Editor: MaskNumbers, Handles: FrameHandles },
  outline: { Editor: OutlineEditor, Handles: MaskOutlines, Surface: OutlineTool },
  brush: { Editor: BrushEditor, Surface: BrushTool },
  similar: { Editor: SimilarEditor, Handles: TapHandles, Surface: TapTool },
  cloud: { Editor: MaskNumbers },
  depth: { Editor: DepthEditor },
  pattern: { Editor: PatternEditor },
  picture: { Editor: PictureEditor },
  shared: { Editor: SharedEditor },
}

export function maskInterfaceOf(kind: MaskKind): MaskInterface {
  return interfaces[kind] as MaskInterface
}
