import { fractal, hash } from '../../tracer/noise'
import { box, capsule, type Material, type Shape } from '../../tracer/shapes'
import { scale } from '../../tracer/vector'

// The old coal pier: a trestle of timber bents that runs from the right out across the low sun.

export const timber: Material = ([x, y, z]) => {
  const grain = fractal(x * 6 + z * 6, y * 3, 4, 111)
  return { albedo: scale([0.06, 0.05, 0.042], 0.5 + grain), roughness: 0.7, reflectance: 0.03 }
}

const DECK = 6.4
const FIRST = -17
const LAST = 62
const SPACING = 5.2

/** The line that the pier follows: it comes a little nearer towards the right. */
const lineAt = (x: number): number => 58 - 0.3 * x

export function trestle(): Shape[] {
  const bents = Array.from({ length: Math.floor((LAST - FIRST) / SPACING) + 1 }, (_, i) => bent(FIRST + i * SPACING, i))
  return [...bents.flat(), ...deck(), ...pierHead()]
}

/** Three raking piles, a cap and two crossed braces. */
function bent(x: number, number: number): Shape[] {
  const z = lineAt(x)
  const lean = 0.1 * (hash(number, 1, 3) - 0.5)
  const pile = (dz: number, rake: number): Shape => capsule([x + lean, -1.5, z + dz + rake], [x, DECK - 0.5, z + dz], 0.19, timber)
  return [
    pile(-1.7, -0.7),
    pile(0, 0),
    pile(1.7, 0.7),
    box([x - 0.2, DECK - 0.75, z - 2.3], [x + 0.2, DECK - 0.4, z + 2.3], timber),
    capsule([x + 0.1, 0.9, z - 2.2], [x + 0.1, DECK - 0.9, z + 1.8], 0.085, timber),
    capsule([x - 0.1, 0.9, z + 2.2], [x - 0.1, DECK - 0.9, z - 1.8], 0.085, timber),
    // Along the pier: a cross between this bent and the next.
    capsule([x, 1.1, z - 1.9], [x + SPACING, DECK - 0.9, lineAt(x + SPACING) - 1.8], 0.09, timber),
    capsule([x + SPACING, 1.1, lineAt(x + SPACING) - 1.9], [x, DECK - 0.9, z - 1.8], 0.09, timber),
  ]
}

function deck(): Shape[] {
  const parts: Shape[] = []
  for (let x = FIRST - 2; x < LAST; x += SPACING / 2) {
    const z = lineAt(x + SPACING / 4)
    parts.push(box([x, DECK - 0.4, z - 2.5], [x + SPACING / 2 + 0.02, DECK, z + 2.5], timber))
    parts.push(capsule([x, DECK, z - 2.4], [x, DECK + 1.15, z - 2.4], 0.06, timber))
    for (const height of [0.62, 1.12]) {
      parts.push(
        capsule([x, DECK + height, lineAt(x) - 2.4], [x + SPACING / 2, DECK + height, lineAt(x + SPACING / 2) - 2.4], 0.045, timber),
      )
    }
  }
  return parts
}

/** At the far end: a loading hoist, a shed and a ladder into the water. */
function pierHead(): Shape[] {
  const x = FIRST
  const z = lineAt(x)
  return [
    box([x + 7.6, DECK, z - 1.7], [x + 11.4, DECK + 2.5, z + 1.2], timber),
    ...[0, 1, 2, 3].map((i) =>
      box([x + 7.3 + 0.35 * i, DECK + 2.5 + 0.24 * i, z - 2], [x + 11.7 - 0.35 * i, DECK + 2.75 + 0.24 * i, z + 1.5], timber),
    ),
    capsule([x + 0.5, DECK, z], [x + 0.5, DECK + 5.2, z], 0.16, timber),
    capsule([x + 0.5, DECK + 1.2, z], [x - 4.6, DECK + 5.4, z], 0.12, timber),
    capsule([x + 0.5, DECK + 5.1, z], [x - 4.5, DECK + 5.3, z], 0.035, timber),
    capsule([x - 4.5, DECK + 5.3, z], [x - 4.5, DECK + 2.4, z], 0.03, timber),
    capsule([x - 1.6, -1, z - 2.3], [x - 1.6, DECK, z - 2.3], 0.05, timber),
    capsule([x - 1.1, -1, z - 2.3], [x - 1.1, DECK, z - 2.3], 0.05, timber),
    ...Array.from({ length: 16 }, (_, i) => capsule([x - 1.6, 0.2 + 0.38 * i, z - 2.3], [x - 1.1, 0.2 + 0.38 * i, z - 2.3], 0.03, timber)),
  ]
}
