import type { EffectKind } from '@welkinar/core'
import { GreyPicker } from './adjust/GreyPicker'
import { TablePanel } from './colourTable/TablePanel'
import { CurvesPanel } from './curves/CurvesPanel'
import { PatternPanel, ShapePanel } from './customField/panels'
import type { EffectInterface } from './effectInterface'
import { PathHandles, PathTool } from './glowLine/PathHandles'
import { PathList } from './glowLine/PathList'
import { HuePicker } from './oneHue/HuePicker'
import { PullSurface } from './oneHue/PullSurface'
import { OverlayPicture } from './overlay/OverlayPicture'
import { PerLayerControls } from './rain/PerLayerControls'
import { MirroredChoice } from './reflection/MirroredChoice'
import { DetailPicture } from './softFocus/DetailPicture'
import { GlintHandles, GlintTool } from './sparkles/GlintHandles'
import { GlintPlaces } from './sparkles/GlintPlaces'

const interfaces: { readonly [K in EffectKind]?: EffectInterface<K> } = {
  rain: { Pattern: PerLayerControls },
  sparkles: { Pattern: GlintPlaces, Handles: GlintHandles, Surface: GlintTool },
  glowLine: { Pattern: PathList, Handles: PathHandles, Surface: PathTool },
  softFocus: { Shape: DetailPicture },
  adjust: { Shape: GreyPicker },
  curves: { Pattern: CurvesPanel },
  oneHue: { Pattern: HuePicker, Surface: PullSurface },
  colourTable: { Pattern: TablePanel },
  customField: { Pattern: PatternPanel, Shape: ShapePanel },
  overlay: { Pattern: OverlayPicture },
  reflection: { Pattern: MirroredChoice },
}

/** What a kind has of its own in the interface; most have nothing. */
export function interfaceOf(kind: EffectKind): EffectInterface {
  return (interfaces[kind] ?? {}) as EffectInterface
}
