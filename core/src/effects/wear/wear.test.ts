import { beforeAll, describe, expect, it } from 'vitest'
import { loadKernels } from '../../../test-support/kernels'
import { effectOf, fieldOf, sumOf } from '../../../test-support/looks'
import { evaluatorFor } from '../../../test-support/pictures'
import type { Evaluator } from '../../graph/evaluator'

const size = { width: 300, height: 200 }
const count = size.width * size.height

let evaluator: Evaluator
beforeAll(async () => {
  const kernels = await loadKernels()
  evaluator = evaluatorFor(kernels)
})

describe('wear', () => {
  const worn = (pattern: object, shape: object = {}) =>
    effectOf(
      size,
      'wear',
      'dusty-glass-plate',
      { scratches: 0, specks: 0, paper: 0, stains: 0, size: 1, length: 60, ...pattern },
      { borders: 0, blur: 0, ...shape },
    )

  it.each([{ scratches: 40 }, { specks: 60 }, { paper: 100 }, { stains: 100 }])('has %o, and nothing of it at 0', (pattern) => {
    expect(sumOf(fieldOf(evaluator, size, worn(pattern)), size)).toBeGreaterThan(0.003 * count)
    expect(sumOf(fieldOf(evaluator, size, worn({})), size)).toBe(0)
  })

  it('has scratches along their direction', () => {
    const across = fieldOf(evaluator, size, worn({ scratches: 60, angle: 0 }))
    let [along, down] = [0, 0]
    for (let i = 0; i < count - size.width; i++) {
      along += Math.abs(across[i + 1]! - across[i]!)
      down += Math.abs(across[i + size.width]! - across[i]!)
    }
    expect(down).toBeGreaterThan(3 * along)
  })

  it('has less in the middle than at the borders if that is wanted', () => {
    const field = fieldOf(evaluator, size, worn({ paper: 100 }, { borders: 100 }))
    const middle = sumOf(field, size, (x, y) => Math.hypot((x - 150) / 1.5, y - 100) < 20)
    const corner = sumOf(field, size, (x, y) => Math.hypot(x / 1.5, y) < 40)
    expect(corner).toBeGreaterThan(3 * middle)
  })
})
