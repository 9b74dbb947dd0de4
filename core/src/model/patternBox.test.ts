import { describe, expect, it } from 'vitest'
import { halvesOf, movedBy, pulledAbout, turnedAbout, type Placed } from './patternBox'

const placed: Placed = { x: 120, y: -40, size: 300, stretch: 2.5, turn: 30 }
const middle = { x: 900, y: 500 }

/** Where a pattern that goes on without end has what it shows at a photo px: along and across its largest shapes (the definition of the cloud mask). */
function patternAt({ x, y, size, stretch, turn }: Placed, at: { x: number; y: number }): [number, number] {
  const radians = (turn * Math.PI) / 180
  const [dx, dy] = [at.x - x, at.y - y]
  const [u, v] = [dx * Math.cos(radians) - dy * Math.sin(radians), dx * Math.sin(radians) + dy * Math.cos(radians)]
  return [u / (size * Math.sqrt(stretch)), (v * Math.sqrt(stretch)) / size]
}

function near(a: readonly number[], b: readonly number[]): void {
  a.forEach((value, i) => expect(value).toBeCloseTo(b[i]!, 9))
}

describe('a pattern that is moved, turned and pulled by a box', () => {
  it('goes with the hand', () => {
    near(patternAt(movedBy(placed, { x: 35, y: -12 }), { x: middle.x + 35, y: middle.y - 12 }), patternAt(placed, middle))
  })

  it.each([10, -75, 200])('turned by %d° keeps what lies in the middle of the box, and takes the rest with it', (degrees) => {
    const turned = turnedAbout(placed, middle, degrees)
    near(patternAt(turned, middle), patternAt(placed, middle))
    const radians = (degrees * Math.PI) / 180
    const beside = { x: middle.x + 100 * Math.cos(radians), y: middle.y - 100 * Math.sin(radians) }
    near(patternAt(turned, beside), patternAt(placed, { x: middle.x + 100, y: middle.y }))
    expect(Math.abs(turned.turn)).toBeLessThanOrEqual(180)
  })

  it.each([
    [2, 2],
    [3, 1],
    [1, 0.4],
  ])('pulled %d times along and %d across keeps the middle, and its shapes are as large as they were pulled', (along, across) => {
    const pulled = pulledAbout(placed, middle, along, across)
    near(patternAt(pulled, middle), patternAt(placed, middle))
    const [before, after] = [halvesOf(placed), halvesOf(pulled)]
    near([after.along / before.along, after.across / before.across], [along, across])
  })
})
