import type { EffectKind } from '@welkinar/core'
import { create } from 'zustand'
import { keepChoice, keptChoice } from '../../../common/keptChoice'
import { correctionKinds } from './correctHere'
import { correctionShapes, type CorrectionShape } from './shapes'

/** What the next drag makes. */
interface NextCorrection {
  readonly shape: CorrectionShape
  readonly kind: EffectKind
  /** Whether the next stroke begins another correction, though one is painted already. */
  readonly begins: boolean
}

const SHAPE = 'welkinar correction shape'
const KIND = 'welkinar correction kind'

/** The shape and the kind that were used last in this browser. */
export const useNextCorrection = create<NextCorrection>()(() => ({
  shape: correctionShapes.find((shape) => shape === keptChoice(SHAPE)) ?? 'ellipse',
  kind: correctionKinds.find((kind) => kind === keptChoice(KIND)) ?? 'adjust',
  begins: false,
}))

export function chooseCorrection(part: Partial<NextCorrection>): void {
  if (part.shape) keepChoice(SHAPE, part.shape)
  if (part.kind) keepChoice(KIND, part.kind)
  useNextCorrection.setState(part)
}
