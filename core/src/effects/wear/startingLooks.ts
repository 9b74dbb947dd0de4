import { NEUTRAL, type StartingLook } from '../effectDefinition'
import { everywhere } from '../lightMasks'
import type { WearControls } from './definition'

function look(
  id: string,
  name: string,
  pattern: Partial<WearControls['pattern']>,
  more: Partial<Pick<StartingLook<WearControls>, 'mix'>> & { readonly tint?: string; readonly borders?: number } = {},
): StartingLook<WearControls> {
  const { tint = '#fff6e6', borders = 60, ...rest } = more
  return {
    id,
    name,
    controls: {
      pattern: { scratches: 0, length: 700, angle: 88, specks: 0, size: 1.1, paper: 0, stains: 0, seed: 19, ...pattern },
      shape: { borders, blur: 0.3 },
    },
    colour: { tint, light: null, lit: 0 },
    where: everywhere,
    mix: { mode: 'screen', amount: 70, linear: false },
    ...rest,
  }
}

/** Very little of it, laid over by Screen, darker marks by Multiply: common practice, no source. Lengths for 6 megapixels. */
export const startingLooks: readonly StartingLook<WearControls>[] = [
  look('dusty-glass-plate', 'Dusty glass plate', { specks: 140, scratches: 24, size: 2, stains: 14 }),
  look('scratched-film', 'Scratched film', { scratches: 90, length: 1600, angle: 90, specks: 15, size: 1.3 }, { borders: 20 }),
  look(
    'old-paper',
    'Old paper',
    { paper: 100, stains: 32, specks: 6, seed: 5 },
    { tint: '#6b5233', mix: { mode: 'multiply', amount: 60, linear: false } },
  ),
]

/** Changes nothing. */
export const neutral: StartingLook<WearControls> = look(NEUTRAL, 'Neutral', {}, { borders: 0 })
