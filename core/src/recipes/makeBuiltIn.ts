import { newEffect } from '../effects/newEffect'
import type { Effect } from '../effects/registry'
import { newMask } from '../masks/newMask'
import type { Mask } from '../masks/registry'
import { noMarks, type SceneMarks } from '../model/marks'
import type { Frame } from '../model/frame'
import type { Recipe } from '../model/recipe'
import { documentVersion } from '../model/version'
import type { Size } from '../planes/grid'
import type { BuiltInEffect, BuiltInRecipe, BuiltInWhere } from './builtIn'

/** The photo that a built-in recipe is made for, and what was marked or read in it. */
interface MadeOn {
  readonly photo: Size
  readonly marks: SceneMarks
  readonly frame?: Frame
}

/** A built-in recipe as it begins on a photo. Its effects have the ids `1`, `2` … */
export function makeBuiltIn({ name, tags, effects }: BuiltInRecipe, { photo, marks, frame }: MadeOn): Recipe {
  const { width, height } = photo
  return {
    format: 'welkinar-recipe',
    ...documentVersion,
    name,
    madeFor: { width, height },
    effects: effects.map((effect, i) => made(effect, `${i + 1}`, { photo, marks, ...(frame && { frame }) })),
    groups: [],
    shared: [],
    pinned: [],
    amount: 100,
    // They are placed already.
    anchors: [],
    groundwork: null,
    tags: [...tags],
  }
}

function made({ kind, look, amount = 100, where }: BuiltInEffect, id: string, { photo, marks, frame }: MadeOn): Effect {
  const effect = newEffect(photo, { kind, look, id, marks, ...(frame && { frame }) })
  effect.mix.amount = Math.round((effect.mix.amount * amount) / 100)
  if (where) effect.where.masks.push(maskFor(where, photo))
  return effect
}

/** Part of the width. */
const SKY_FEATHER = 0.008

function maskFor(where: BuiltInWhere, photo: Size): Mask {
  const kinds = {
    sky: 'sky',
    'not sky': 'sky',
    far: 'depth',
    near: 'depth',
    darks: 'luminosity',
    mids: 'luminosity',
    brights: 'luminosity',
  } as const
  const mask = newMask(photo, { kind: kinds[where], id: where, join: 'keep', marks: noMarks })
  if (mask.kind === 'luminosity' && (where === 'darks' || where === 'mids' || where === 'brights')) mask.curve = where
  // Where a sky ends is not sure to the pixel.
  const feather = kinds[where] === 'sky' ? SKY_FEATHER * photo.width : 0
  return { ...mask, feather, invert: where === 'not sky' || where === 'near' }
}
