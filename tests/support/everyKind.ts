import {
  effectDefinitions,
  gridAt,
  gridBounds,
  newEffect,
  newFieldStep,
  noMarks,
  sceneGraph,
  type Effect,
  type Scene,
} from '@welkinar/core'
import { KnownNodes, type RenderWorker } from '@welkinar/core/pool'

// What runs in the page as well as here: every starting look of every kind, planned and drawn on the spot.

/** The part of a thread that is needed; calls may cross a worker boundary. */
interface Thread {
  addPhoto(photo: Parameters<RenderWorker['addPhoto']>[0]): unknown
  renderTile(...request: Parameters<RenderWorker['renderTile']>): unknown
}

const SIZE = { width: 420, height: 280 }
const scales = [1, 0.37]
const phases = [0, 0.4]

/** A made-up photo: dark ground, a pale sky, a bright spot, some noise. */
function pixels(): Uint8Array {
  const data = new Uint8Array(SIZE.width * SIZE.height * 4)
  let state = 11
  for (let i = 0; i < data.length; i += 4) {
    const [x, y] = [(i / 4) % SIZE.width, Math.floor(i / 4 / SIZE.width)]
    state = (Math.imul(state, 1664525) + 1013904223) | 0
    const spot = (x - 300) ** 2 + (y - 90) ** 2 < 300 ? 90 : 0
    const tone = (y < 130 ? 150 - y / 2 : 30 + x / 9) + spot + (state >>> 28)
    data.set([Math.min(255, tone * 0.9), Math.min(255, tone), Math.min(255, tone * 1.1), 255], i)
  }
  return data
}

const marks: Scene['marks'] = {
  ...noMarks,
  horizon: { y: 130, turn: 1.5 },
  waterline: { y: 190, turn: 0 },
  lights: [{ id: 'lamp', name: 'Lamp', x: 300, y: 90, radius: 17, colour: '#ffc58a', strength: 80 }],
}

interface Drawn {
  /** Stands for all bytes of the picture (FNV-1a). */
  readonly hash: number
  /** Mean red, green and blue of each of its cells, in codes to a tenth. */
  readonly means: readonly number[]
}

const CELLS = { across: 4, down: 3 }

function meansOf(bytes: Uint8ClampedArray, width: number, height: number): number[] {
  const sums = Array.from({ length: CELLS.across * CELLS.down * 3 }, () => 0)
  const counts = sums.map(() => 0)
  for (let i = 0; i < width * height; i++) {
    const [column, row] = [Math.floor(((i % width) * CELLS.across) / width), Math.floor((Math.floor(i / width) * CELLS.down) / height)]
    for (let channel = 0; channel < 3; channel++) {
      const at = 3 * (row * CELLS.across + column) + channel
      sums[at] = sums[at]! + bytes[4 * i + channel]!
      counts[at] = counts[at]! + 1
    }
  }
  return sums.map((sum, at) => Math.round((10 * sum) / counts[at]!) / 10)
}

/**
 * What each picture looks like, by what it shows.
 * @param whole each scene at all scales and phases; else the first look of each kind at one of them in turn, and the mixed ones at all
 */
export async function everyKind(thread: Thread, whole: boolean): Promise<Record<string, Drawn>> {
  const data = pixels()
  await thread.addPhoto({ id: 'made-up', ...SIZE, levels: [{ ...SIZE, format: 'rgba8', pixels: data.buffer as ArrayBuffer }] })
  const found: Record<string, Drawn> = {}
  const views = scales.flatMap((scale) => phases.map((phase) => ({ scale, phase })))
  for (const [i, { title, effects, inSample }] of scenes().entries()) {
    if (!whole && !inSample) continue
    for (const { scale, phase } of whole || effects.length > 2 ? views : [views[i % views.length]!]) {
      // In the second half of the loop the light is outside the frame.
      const lights = marks.lights.map((light) => (phase > 0 ? { ...light, x: 700, y: -160 } : light))
      const grid = gridAt(SIZE, scale)
      const node = sceneGraph({ photo: { id: 'made-up', ...SIZE }, marks: { ...marks, lights }, phase, effects })
      const bytes = (await thread.renderTile(new KnownNodes().send(node), grid, gridBounds(grid))) as Uint8ClampedArray
      found[`${title}, at ${scale}, phase ${phase}`] = {
        hash: bytes.reduce((hash, byte) => Math.imul(hash ^ byte, 0x01000193), 0x811c9dc5),
        means: meansOf(bytes, grid.width, grid.height),
      }
    }
  }
  return found
}

interface MadeScene {
  readonly title: string
  readonly effects: Effect[]
  /** Whether it is drawn where not all are. */
  readonly inSample: boolean
}

/** Every starting look by itself, and all kinds over one another, the wide ones twice as wide. */
function scenes(): MadeScene[] {
  const kinds = effectDefinitions.filter(({ madeFromEffect }) => !madeFromEffect)
  const alone = effectDefinitions.flatMap(({ kind, startingLooks, madeFromEffect }) =>
    startingLooks.map(({ id, name }, i): MadeScene => {
      const effect = newEffect(SIZE, { kind, look: id, id: 'one' })
      effect.colour.lit = 60
      if (madeFromEffect) (effect.controls.pattern as { of?: string }).of = 'two'
      const effects = madeFromEffect ? [newEffect(SIZE, { kind: 'rain', id: 'two' }), effect] : [effect]
      return { title: `${kind}, ${name}`, effects, inSample: i === 0 }
    }),
  )
  const wide = { width: 4 * SIZE.width, height: 4 * SIZE.height }
  const mixed = [
    kinds.map(({ kind }) => newEffect(SIZE, { kind, id: kind })),
    (['stars', 'fog', 'softFocus', 'lightBloom', 'rays'] as const).map((kind) => newEffect(wide, { kind, id: kind })),
  ]
  const joined = newEffect(SIZE, { kind: 'customField', look: 'fire', id: 'one' }) as Extract<Effect, { kind: 'customField' }>
  joined.controls.shape.steps.unshift(newFieldStep('second', SIZE))
  return [
    ...alone,
    { title: 'customField, with another noise', effects: [joined], inSample: true },
    ...mixed.map((effects, i): MadeScene => ({ title: `mixed ${i}`, effects, inSample: true })),
  ]
}
