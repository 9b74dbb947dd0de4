import type { z } from 'zod'
import { percentControl } from '../../model/controls'

/** Metres of the values of a drawn curve: equal steps of the logarithm. */
export const CURVE_FROM = 10
export const CURVE_TO = 10000
export const curveKeys = ['at10', 'at32', 'at100', 'at320', 'at1000', 'at3200', 'at10000'] as const
const curveWords = ['10 m', '32 m', '100 m', '320 m', '1 km', '3.2 km', '10 km'] as const
const curveStart = [0, 4, 12, 30, 60, 85, 95] as const
export const curveControls = Object.fromEntries(
  curveKeys.map((key, index) => [key, percentControl(`At ${curveWords[index] ?? ''}`).default(curveStart[index] ?? 0)]),
) as Record<(typeof curveKeys)[number], z.ZodDefault<z.ZodNumber>>

/** What the later controls start with: haze laid over the photo, as air does. */
export const hazeStart = {
  does: 'add',
  by: 'visibility',
  ...(Object.fromEntries(curveKeys.map((key, index) => [key, curveStart[index] ?? 0])) as Record<(typeof curveKeys)[number], number>),
} as const
