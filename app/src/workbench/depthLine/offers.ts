import { effectDefinitions, type EffectFamily, type EffectKind } from '@welkinar/core'

/** A starting look that can be added. */
export interface Offer {
  readonly kind: EffectKind
  readonly label: string
  readonly family: EffectFamily
  readonly look: string
}

/** What else people call what a kind makes; they are searched too. */
const otherWords: Partial<Record<EffectKind, string>> = {
  rain: 'shower storm wet drops water',
  snow: 'blizzard winter flakes cold',
  stars: 'night sky galaxy astro',
  fog: 'mist smoke cloud steam',
  haze: 'atmosphere aerial perspective air distance depth',
  dust: 'particles motes pollen ash seeds',
  splashes: 'rain ground puddle ripples impact drops',
  lensDrops: 'water droplets glass window rain splash spray condensation',
  rays: 'light beams shafts sunbeams volumetric',
  sunburst: 'sun star starburst flare rays',
  lowSun: 'sunset sunrise golden hour dusk dawn',
  sparkles: 'glitter glints twinkle magic',
  catchLights: 'rim edge light highlights',
  subjectGlow: 'halo aura shine',
  glowLine: 'neon trail light painting line',
  softFocus: 'dreamy soft diffusion blur romantic',
  lightBloom: 'glow halation highlights mist filter',
  lightPool: 'spotlight dodge relight vignette',
  lamp: 'lantern street light source relight',
  glaze: 'tint colour solid gradient wash paint grade',
  adjust: 'exposure contrast white balance brightness shadows highlights saturation vibrance temperature tone local clear',
  curves: 'tone curve levels contrast grade',
  colourBalance: 'three-way shadows midtones highlights grade tint',
  oneHue: 'hue saturation lightness single colour only',
  colourTable: 'lut cube grade film look',
  sharpen: 'unsharp mask detail crisp output',
  vignette: 'darken corners edges frame',
  grain: 'film noise texture',
  fringe: 'chromatic aberration lens colour',
  wear: 'scratches dust old vintage paper texture plate',
  overlay: 'picture image texture sky replacement composite layer file import bird',
  customField: 'noise texture clouds fire lightning pattern own',
}

// What mirrors another effect is made from that effect.
export const offers: readonly Offer[] = effectDefinitions
  .filter(({ madeFromEffect }) => !madeFromEffect)
  .flatMap(({ kind, label, family, startingLooks }) => startingLooks.map(({ name }) => ({ kind, label, family, look: name })))

/** The looks in whose words all that was typed begins somewhere; those that are called so first. */
export function search(text: string): readonly Offer[] {
  const typed = text.toLowerCase().split(/\s+/).filter(Boolean)
  const rank = (words: string): boolean =>
    typed.every((part) =>
      words
        .toLowerCase()
        .split(/[\s-]+/)
        .some((word) => word.startsWith(part)),
    )
  const named = offers.filter(({ label, look }) => rank(`${label} ${look}`))
  const meant = offers.filter((offer) => !named.includes(offer) && rank(`${offer.label} ${offer.look} ${otherWords[offer.kind] ?? ''}`))
  return [...named, ...meant]
}
