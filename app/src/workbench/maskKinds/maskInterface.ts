import { controlOf, limitsOf, maskSchemaOf, nearestNumber, type Mask, type MaskKind, type MaskListRef } from '@welkinar/core'
import type { ReactNode } from 'react'
import type { PhotoTool } from '../../scene/viewState'
import type { ViewPort } from '../onPhoto/viewPort'

/** What the editor of a mask gets. */
export interface MaskEditorProps<M extends Mask = Mask> {
  readonly list: MaskListRef
  readonly mask: M
}

/** What handles on the photo get. */
export interface MaskHandleProps<M extends Mask = Mask> {
  readonly port: ViewPort
  readonly list: MaskListRef
  readonly mask: M
  /** Whether something else lies in its middle: the handle that moves it stands aside then. */
  readonly aside?: boolean
}

/** What takes the pointer on the photo gets, while a tool is held. */
export interface MaskSurfaceProps<M extends Mask = Mask> extends MaskHandleProps<M> {
  readonly tool: PhotoTool
  /** Whether the exact picture is on the screen. */
  readonly settled: boolean
}

/** The interface of a kind of mask. */
export interface MaskInterface<M extends Mask = Mask> {
  Editor(props: MaskEditorProps<M>): ReactNode
  Handles?(props: MaskHandleProps<M>): ReactNode
  /** Nothing while the tool is not its own. */
  Surface?(props: MaskSurfaceProps<M>): ReactNode
}

/** Values of a mask that come from the hand, each number the nearest that the mask can have. */
export function withinLimits<P extends object>(kind: MaskKind, part: P): P {
  const shape = maskSchemaOf(kind).shape as Record<string, Parameters<typeof controlOf>[0] | undefined>
  const entries = Object.entries(part).map(([key, value]: [string, unknown]) => {
    const schema = shape[key]
    return [key, typeof value === 'number' && schema && controlOf(schema) ? nearestNumber(value, limitsOf(schema)) : value] as const
  })
  return Object.fromEntries(entries) as P
}
