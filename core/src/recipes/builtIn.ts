import type { EffectKind } from '../effects/registry'

/** What a recipe is mostly about. */
export const recipeTags = ['Rain', 'Snow', 'Fog', 'Sun', 'Night', 'Finish'] as const
type RecipeTag = (typeof recipeTags)[number]

/** Where an effect is let in, besides where its look begins. */
export type BuiltInWhere = 'sky' | 'not sky' | 'far' | 'near' | 'darks' | 'mids' | 'brights'

/** An effect of a recipe: a look of a kind, and what is otherwise than there. */
export interface BuiltInEffect {
  readonly kind: EffectKind
  readonly look: string
  /** Per cent of the look's own amount. */
  readonly amount?: number
  readonly where?: BuiltInWhere
}

/** A recipe that every Welkinar has. Its effects begin on a photo as new ones do: at its light, along its horizon, by its brights. */
export interface BuiltInRecipe {
  readonly id: string
  readonly name: string
  readonly tags: readonly [RecipeTag, ...string[]]
  /** From far to near. */
  readonly effects: readonly BuiltInEffect[]
}

type Line = readonly [kind: EffectKind, look: string, amount?: number, where?: BuiltInWhere]

function recipe(id: string, name: string, tags: BuiltInRecipe['tags'], ...lines: readonly Line[]): BuiltInRecipe {
  const effects = lines.map(([kind, look, amount, where]) => ({
    kind,
    look,
    ...(amount === undefined ? {} : { amount }),
    ...(where && { where }),
  }))
  return { id, name, tags, effects }
}

/** In the order in which they are offered. */
export const builtInRecipes: readonly BuiltInRecipe[] = [
  recipe(
    'after-the-squall',
    'After the squall',
    ['Rain', 'grey', 'weather'],
    ['haze', 'grey-day', 60],
    ['rain', 'steady-rain'],
    ['colourBalance', 'before-the-snow', 60, 'darks'],
  ),
  recipe(
    'wet-streets',
    'Wet streets, lamps lit',
    ['Rain', 'night', 'city'],
    ['reflection', 'wet-ground', 80],
    ['adjust', 'as-night', 70],
    ['rain', 'downpour', 85],
    ['lightBloom', 'night-lights'],
  ),
  recipe(
    'rain-on-the-pane',
    'Rain on the pane',
    ['Rain', 'window', 'glass'],
    ['haze', 'grey-day', 30],
    ['lensDrops', 'running-down-the-glass'],
    ['softFocus', 'silk', 60],
    ['glaze', 'cold-shadows-warm-lights', 80, 'darks'],
  ),
  recipe(
    'harbour-drizzle',
    'Harbour drizzle',
    ['Rain', 'mist', 'sea'],
    ['fog', 'fog-from-the-sea', 60],
    ['rain', 'drizzle'],
    ['colourTable', 'silver-plate', 55],
  ),
  recipe(
    'storm-front',
    'Storm front',
    ['Rain', 'storm', 'drama'],
    ['adjust', 'as-night', 45],
    ['customField', 'lightning', 90, 'sky'],
    ['rain', 'driving-rain'],
    ['curves', 'gentle-s'],
    ['vignette', 'quiet-corners'],
  ),
  recipe(
    'quiet-snow',
    'Quiet snow',
    ['Snow', 'calm'],
    ['haze', 'grey-day', 65],
    ['snow', 'quiet-snowfall'],
    ['colourBalance', 'before-the-snow', 90],
    ['softFocus', 'veil'],
  ),
  recipe(
    'white-out',
    'White-out',
    ['Snow', 'storm', 'cold'],
    ['haze', 'grey-day'],
    ['fog', 'fog-from-the-sea', 75],
    ['snow', 'snowstorm'],
    ['adjust', 'cold-morning', 80],
  ),
  recipe(
    'snow-by-lamplight',
    'Snow by lamplight',
    ['Snow', 'night', 'warm'],
    ['adjust', 'as-night', 85],
    ['lightPool', 'lamplight', 70],
    ['snow', 'thick-flakes', 90],
    ['lightBloom', 'candle-warmth'],
  ),
  recipe(
    'first-frost',
    'First frost',
    ['Snow', 'cold', 'sparkle'],
    ['haze', 'blue-distance', 70],
    ['sparkles', 'cold-stars-of-frost'],
    ['adjust', 'cold-morning'],
    ['curves', 'faded', 50, 'darks'],
  ),
  recipe(
    'meadow-mist',
    'Meadow mist',
    ['Fog', 'morning', 'calm'],
    ['fog', 'ground-mist'],
    ['rays', 'shafts-from-above', 60],
    ['colourTable', 'amber-and-sea', 45],
  ),
  recipe(
    'valley-of-fog',
    'Valley of fog',
    ['Fog', 'morning', 'far'],
    ['haze', 'blue-distance', 90],
    ['fog', 'morning-fog'],
    ['glaze', 'cold-shadows-warm-lights', 70, 'darks'],
  ),
  recipe(
    'smoke-drifts',
    'Smoke drifts',
    ['Fog', 'smoke', 'warm'],
    ['haze', 'golden-haze', 50],
    ['fog', 'drifting-smoke'],
    ['dust', 'fine-dust', 80],
    ['colourBalance', 'copper-evening'],
  ),
  recipe(
    'clear-after-rain',
    'Clear after rain',
    ['Fog', 'clear', 'crisp'],
    ['haze', 'clearer-air', 65, 'far'],
    ['oneHue', 'deeper-blues'],
    ['adjust', 'clearer', 60],
    ['sharpen', 'fine-detail', 80],
  ),
  recipe(
    'golden-dust',
    'Golden dust',
    ['Sun', 'warm', 'evening'],
    ['haze', 'golden-haze', 80],
    ['rays', 'streaming-sun', 70],
    ['dust', 'motes-in-the-light'],
    ['glaze', 'warm-glaze'],
  ),
  recipe(
    'between-the-posts',
    'Between the posts',
    ['Sun', 'burst', 'warm'],
    ['haze', 'golden-haze', 45],
    ['sunburst', 'sun-between-posts'],
    ['catchLights', 'warm-edges', 80],
    ['vignette', 'quiet-corners', 80],
  ),
  recipe(
    'last-light',
    'Last light',
    ['Sun', 'evening', 'glow'],
    ['haze', 'golden-haze', 65],
    ['glaze', 'evening-from-above', 80],
    ['lowSun', 'last-minute'],
    ['softFocus', 'dream-bloom', 70, 'brights'],
  ),
  recipe(
    'winter-noon',
    'Winter noon',
    ['Sun', 'cold', 'pale'],
    ['haze', 'blue-distance', 65],
    ['lowSun', 'pale-winter-sun'],
    ['curves', 'faded', 70],
    ['adjust', 'cold-morning', 40, 'darks'],
  ),
  recipe(
    'over-the-ridge',
    'Over the ridge',
    ['Sun', 'evening', 'rim'],
    ['lowSun', 'behind-the-ridge'],
    ['sunburst', 'rays-through-haze', 60],
    ['colourTable', 'amber-and-sea', 70],
    ['vignette', 'quiet-corners', 70],
  ),
  recipe(
    'glitter-on-the-water',
    'Glitter on the water',
    ['Sun', 'sea', 'sparkle'],
    ['sunburst', 'morning-star'],
    ['sparkles', 'sea-glitter'],
    ['curves', 'faded', 70],
    ['lightBloom', 'mist-on-the-lens', 60],
  ),
  recipe(
    'seeds-on-the-wind',
    'Seeds on the wind',
    ['Sun', 'summer', 'soft'],
    ['rays', 'streaming-sun'],
    ['dust', 'drifting-seeds'],
    ['oneHue', 'warmer-oranges'],
    ['glaze', 'warm-glaze', 90],
    ['vignette', 'pale-borders', 60],
  ),
  recipe(
    'hour-of-lamps',
    'Hour of lamps',
    ['Night', 'dusk', 'city'],
    ['adjust', 'as-night', 75],
    ['stars', 'few-bright-stars'],
    ['colourTable', 'blue-hour', 70],
    ['lightBloom', 'night-lights'],
  ),
  recipe(
    'under-the-river',
    'Under the star river',
    ['Night', 'stars', 'sky'],
    ['adjust', 'as-night'],
    ['stars', 'band-of-stars'],
    ['curves', 'gentle-s', 70, 'sky'],
    ['vignette', 'quiet-corners'],
  ),
  recipe(
    'turning-sky',
    'Turning sky',
    ['Night', 'stars', 'trails'],
    ['adjust', 'as-night', 90],
    ['stars', 'star-trails'],
    ['fog', 'ground-mist', 60],
    ['colourBalance', 'blue-hollows-warm-lights'],
  ),
  recipe(
    'moonlit-path',
    'Moonlit path',
    ['Night', 'moon', 'calm'],
    ['adjust', 'as-night', 90],
    ['lightPool', 'moonlit-patch'],
    ['fog', 'morning-fog', 30],
    ['grain', 'fine-grain'],
  ),
  recipe(
    'tale-in-the-wood',
    'A tale in the wood',
    ['Finish', 'dream', 'sparkle'],
    ['softFocus', 'dream-bloom'],
    ['sparkles', 'fairy-dust'],
    ['colourBalance', 'under-pines', 100, 'darks'],
    ['vignette', 'light-in-the-middle'],
  ),
  recipe(
    'silk-and-shadow',
    'Silk and shadow',
    ['Finish', 'soft', 'portrait'],
    ['softFocus', 'dark-and-light'],
    ['glaze', 'painted-light'],
    ['oneHue', 'calmer-greens'],
    ['vignette', 'close-about-the-subject', 70],
  ),
  recipe(
    'glass-plate',
    'Found glass plate',
    ['Finish', 'old', 'grey'],
    ['colourTable', 'silver-plate'],
    ['softFocus', 'veil'],
    ['curves', 'faded', 60],
    ['wear', 'dusty-glass-plate'],
    ['grain', 'fine-grain', 80, 'mids'],
  ),
  recipe(
    'drawer-postcard',
    'Postcard from a drawer',
    ['Finish', 'old', 'warm'],
    ['colourTable', 'old-postcard'],
    ['wear', 'old-paper', 70],
    ['grain', 'coarse-grain', 80, 'mids'],
    ['vignette', 'pale-borders'],
  ),
  recipe(
    'worn-reel',
    'Worn reel',
    ['Finish', 'film', 'scratched'],
    ['curves', 'crossed-colours'],
    ['fringe', 'old-lens'],
    ['grain', 'grain-in-colour'],
    ['wear', 'scratched-film', 100, 'darks'],
  ),
  recipe(
    'ember-evening',
    'Ember evening',
    ['Finish', 'warm', 'contrast'],
    ['colourBalance', 'copper-evening'],
    ['glaze', 'evening-from-above', 70, 'mids'],
    ['catchLights', 'soft-lift', 70],
    ['vignette', 'quiet-corners'],
  ),
]
