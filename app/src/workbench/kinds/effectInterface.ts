import type { EffectKind } from '@welkinar/core'
import type { ReactNode } from 'react'
import type { EffectOf } from '../../scene/sceneStore'
import type { PhotoTool } from '../../scene/viewState'
import type { ViewPort } from '../onPhoto/viewPort'

/** What a panel in the steps of an effect gets. */
export interface EffectPanelProps<K extends EffectKind = EffectKind> {
  readonly effect: EffectOf<K>
}

/** What handles on the photo get. */
export interface EffectHandleProps<K extends EffectKind = EffectKind> {
  readonly port: ViewPort
  readonly effect: EffectOf<K>
}

/** What takes the pointer on the photo gets, while a tool is held. */
export interface EffectSurfaceProps<K extends EffectKind = EffectKind> extends EffectHandleProps<K> {
  readonly tool: PhotoTool
}

/** What the interface of a kind of effect has beside what is made from its schema. */
export interface EffectInterface<K extends EffectKind = EffectKind> {
  /** In the step of the pattern, and in that of the shape. */
  Pattern?(props: EffectPanelProps<K>): ReactNode
  Shape?(props: EffectPanelProps<K>): ReactNode
  Handles?(props: EffectHandleProps<K>): ReactNode
  /** Nothing while the tool is not its own. */
  Surface?(props: EffectSurfaceProps<K>): ReactNode
}
