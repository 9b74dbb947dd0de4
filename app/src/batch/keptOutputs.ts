import { allColourSpaces, exportFormats, fileFormats } from '@welkinar/core'
import { keepChoice, keptChoice } from '../common/keptChoice'
import type { RunOutput } from '../storage/database'

const NAME = 'welkinar run outputs'

/** The files that were asked for last in this browser, as far as they can be made. */
export function keptOutputs(): RunOutput[] | undefined {
  try {
    const kept: unknown = JSON.parse(keptChoice(NAME) ?? 'null')
    const sound = Array.isArray(kept) ? kept.filter(isOutput) : []
    return sound.length > 0 ? sound : undefined
  } catch {
    return undefined
  }
}

export function keepOutputs(outputs: readonly RunOutput[]): void {
  keepChoice(NAME, JSON.stringify(outputs))
}

function isOutput(value: unknown): value is RunOutput {
  const { format, bits, quality, space, longSide, sharpened } = (value ?? {}) as Partial<RunOutput>
  if (format === undefined || !exportFormats.includes(format) || space === undefined || !allColourSpaces.includes(space)) return false
  const isSize = longSide === null || (Number.isInteger(longSide) && (longSide ?? 0) >= LEAST_SIDE)
  return fileFormats[format].depths.some((one) => one === bits) && typeof quality === 'number' && isSize && typeof sharpened === 'boolean'
}

/** Px; no smaller picture is made. */
export const LEAST_SIDE = 16
