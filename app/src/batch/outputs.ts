import { fileFormats } from '@welkinar/core'
import { safeFileName } from '../common/files'
import type { RunOutput } from '../storage/database'

/** The file of a run that a person begins with. */
export const firstOutput: RunOutput = { format: 'jpeg', bits: 8, quality: 92, space: 'srgb', longSide: null, sharpened: true }

/** What may stand in a pattern of names, and what it stands for. */
export const namePlaces = {
  '{name}': 'name of the photo',
  '{recipe}': 'name of the recipe',
  '{number}': 'number in the list',
  '{date}': 'today',
}

export const usualPattern = '{name}'

interface Named {
  readonly photos: readonly string[]
  readonly recipes: readonly string[]
  readonly outputs: readonly RunOutput[]
  readonly pattern: string
  readonly today: Date
}

/** Names of all files by photo, recipe and output, each once: what would be called alike gets the recipe's name, the size, or a number. */
export function namesOf({ photos, recipes, outputs, pattern, today }: Named): string[][][] {
  const taken = new Set<string>()
  const digits = String(photos.length).length
  return photos.map((photo, i) =>
    recipes.map((recipe) =>
      outputs.map((output) => {
        const values: Record<string, string> = {
          '{name}': photo.replace(/\.[^.]+$/, ''),
          '{recipe}': recipe,
          '{number}': String(i + 1).padStart(digits, '0'),
          '{date}': today.toISOString().slice(0, 10),
        }
        const filled = pattern.replace(/\{\w+\}/g, (place) => values[place] ?? '')
        const withRecipe = recipes.length > 1 && !pattern.includes('{recipe}') ? `${filled} ${recipe}` : filled
        const stem = safeFileName(withRecipe)
        const ending = fileFormats[output.format].endings[0]
        const size = output.longSide === null ? '' : ` ${output.longSide}`
        const tries = [stem, ...(size ? [`${stem}${size}`] : [])]
        for (let number = 2; ; number++) {
          const free = tries.map((one) => `${one}.${ending}`).find((name) => !taken.has(name.toLowerCase()))
          if (free) {
            taken.add(free.toLowerCase())
            return free
          }
          tries.push(`${stem}${size}-${number}`)
        }
      }),
    ),
  )
}
