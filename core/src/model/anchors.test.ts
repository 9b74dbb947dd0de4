import { describe, expect, it } from 'vitest'
import { newEffect } from '../effects/newEffect'
import type { Effect } from '../effects/registry'
import { newMask } from '../masks/newMask'
import { noMarks, type SceneMarks } from './marks'
import { nothingRead } from './reading'
import { layRecipe, parseRecipe, recipeFrom } from './recipe'
import { sceneSchema, untouched, type Scene } from './scene'
import { documentVersion } from './version'

/** What was read in a photo, in parts of its sides. */
interface Seen {
  readonly width: number
  readonly height: number
  readonly light?: readonly [number, number]
  readonly horizon?: number
}

function marksIn({ width, height, light, horizon }: Seen): SceneMarks {
  const reading = {
    ...nothingRead,
    light: light ? { x: light[0] * width, y: light[1] * height } : null,
    horizon: horizon === undefined ? null : { y: horizon * height, turn: 0 },
  }
  return { ...noMarks, reading }
}

const headland: Seen = { width: 3000, height: 2000, light: [0.3, 0.4], horizon: 0.55 }

/** A burst at the light, shafts from it that land far from there, haze along the horizon, and a vignette that nothing holds. */
function sunset(): Scene {
  const photo = { id: 'p', fileName: 'p.jpg', width: headland.width, height: headland.height }
  const marks = marksIn(headland)
  const burst = newEffect(photo, { kind: 'sunburst', id: 'burst', marks })
  const shafts = newEffect(photo, { kind: 'rays', id: 'shafts', marks })
  Object.assign(shafts.controls.pattern, { x: 960, y: 800, follows: null, toX: 1500, toY: 1800 })
  const haze = newEffect(photo, { kind: 'haze', id: 'haze', marks })
  const band = newMask(photo, { kind: 'band', id: 'band', join: 'keep', marks: noMarks })
  Object.assign(band, { x: 1500, y: 1060, follows: null })
  haze.where.masks.push(band)
  const vignette = newEffect(photo, { kind: 'vignette', id: 'vignette', marks })
  Object.assign(vignette.controls.pattern, { x: 2400, y: 300, follows: null })
  const effects: Effect[] = [haze, shafts, burst, vignette]
  return sceneSchema.parse({
    format: 'welkinar-scene',
    ...documentVersion,
    ...untouched,
    id: 's',
    name: 'Sunset',
    created: 0,
    edited: 0,
    photo,
    marks,
    effects,
    groups: [],
    pinned: [],
  })
}

/** The recipe of it as a file gives it, laid on a photo. */
function laidOn(seen: Seen) {
  const text = JSON.stringify(recipeFrom(sunset(), { name: 'Sunset' }))
  const { stack, unplaced } = layRecipe(parseRecipe(text, 'sunset.json'), seen, marksIn(seen))
  const [haze, shafts, burst, vignette] = stack.effects
  const inParts = (at: object, x: string, y: string) => {
    const place = at as Record<string, number>
    return [place[x]! / seen.width, place[y]! / seen.height] as const
  }
  return {
    unplaced,
    burst: inParts(burst!.controls.pattern, 'x', 'y'),
    landing: inParts(shafts!.controls.pattern, 'toX', 'toY'),
    band: inParts(haze!.where.masks.at(-1)!, 'x', 'y'),
    vignette: inParts(vignette!.controls.pattern, 'x', 'y'),
  }
}

const close = (found: readonly number[], wanted: readonly number[], within = 0.005) =>
  wanted.forEach((part, i) => expect(Math.abs(found[i]! - part), `${found.join(' ')} for ${wanted.join(' ')}`).toBeLessThan(within))

describe('places of a recipe', () => {
  it('are those that they had, on the photo that it was made on', () => {
    const { unplaced, ...places } = laidOn(headland)
    expect(unplaced).toEqual([])
    close(places.burst, [0.3, 0.4])
    close(places.landing, [0.5, 0.9])
    close(places.band, [0.5, 0.53])
    close(places.vignette, [0.8, 0.15])
  })

  it.each([
    ['a portrait', { width: 2000, height: 3000, light: [0.4, 0.2], horizon: 0.7 }, [0.4, 0.2], [0.6, 0.7], 0.68],
    // The light is on the other side, and so is where it lands.
    ['mirrored', { width: 3000, height: 2000, light: [0.7, 0.4], horizon: 0.55 }, [0.7, 0.4], [0.5, 0.9], 0.53],
    ['a light beyond the frame', { width: 1000, height: 1000, light: [0.2, -0.3], horizon: 0.3 }, [0.2, -0.3], [0.4, 0.2], 0.28],
  ] as const)('go with light and horizon: %s', (_, seen, burst, landing, band) => {
    const places = laidOn(seen)
    expect(places.unplaced).toEqual([])
    close(places.burst, burst)
    close(places.landing, landing)
    close(places.band, [0.5, band])
    close(places.vignette, [0.8, 0.15])
  })

  it('stay where they were without what held them, and it is said of each', () => {
    const room = laidOn({ width: 1500, height: 1000 })
    close(room.burst, [0.3, 0.4])
    close(room.landing, [0.5, 0.9])
    close(room.band, [0.5, 0.53])
    const names = sunset().effects.map(({ kind }) => kind)
    expect(names).toEqual(['haze', 'rays', 'sunburst', 'vignette'])
    expect(room.unplaced).toHaveLength(3)
    expect(room.unplaced.filter((words) => words.endsWith('no light is known in this photo.'))).toHaveLength(2)
    expect(room.unplaced.filter((words) => words.endsWith('no horizon is known in this photo.'))).toHaveLength(1)
  })

  it.each(['effects.9.controls.pattern.y', '__proto__.x.y', 'effects.0.mix.amount', 'constructor.prototype.y'])(
    'an anchor of what is no place is refused: %s',
    (y) => {
      const recipe = recipeFrom(sunset(), { name: 'Odd' })
      const anchors = [{ x: y.replace(/y$/, 'x'), y, to: 'light', dx: 0, dy: 0 }]
      expect(() => parseRecipe(JSON.stringify({ ...recipe, anchors }), 'odd.json')).toThrow(
        'at anchors.0, there is no such place in the recipe',
      )
    },
  )

  it('tones and crop of the photo go along only where that is asked for', () => {
    const crop = { x: 300, y: 200, width: 2000, height: 1000, turn: 2 }
    const scene = { ...sunset(), groundwork: { ...untouched.groundwork, crop } }
    expect(recipeFrom(scene, { name: 'a' }).groundwork).toBeNull()
    const recipe = parseRecipe(JSON.stringify(recipeFrom(scene, { name: 'a', withPhoto: true })), 'a.json')
    expect(layRecipe(recipe, { width: 1500, height: 2000 }).groundwork).toEqual({ crop: { ...crop, x: 150, width: 1000 }, tone: null })
  })

  it('a part of a scene leaves out what it does not need', () => {
    const { effects, pinned, amount } = recipeFrom({ ...sunset(), amount: 40 }, { name: 'a', effects: ['burst', 'haze'] })
    expect([effects.map(({ id }) => id), pinned, amount]).toEqual([['haze', 'burst'], [], 100])
  })
})
