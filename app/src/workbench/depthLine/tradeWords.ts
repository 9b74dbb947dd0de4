import type { EffectKind } from '@welkinar/core'

// What the trade calls what is here under plain names. It is typed, and never shown.

export const wordsOfKind: Partial<Record<EffectKind, string>> = {
  rain: 'shower storm wet drops water precipitation weather',
  snow: 'blizzard winter flakes cold frost weather',
  stars: 'night sky galaxy astro astrophotography',
  fog: 'mist smoke cloud clouds steam weather murk',
  haze: 'atmosphere atmospheric aerial perspective air distance depth smog',
  dust: 'particles motes pollen ash seeds debris',
  splashes: 'rain ground puddle ripples impact drops',
  lensDrops: 'water droplets glass window rain splash spray condensation wet lens',
  rays: 'light beams shafts sunbeams volumetric crepuscular godrays god radial',
  sunburst: 'sun star starburst flare lens flare rays diffraction spikes',
  lowSun: 'sunset sunrise golden hour dusk dawn backlight',
  sparkles: 'glitter glints twinkle magic bokeh fairy specular',
  catchLights: 'rim edge light highlights contour',
  subjectGlow: 'halo aura shine rim',
  glowLine: 'neon trail light painting line streak',
  softFocus: 'dreamy soft diffusion blur romantic glow clarity negative',
  lightBloom: 'glow halation highlights mist filter diffusion',
  lightPool: 'spotlight dodge burn relight relighting vignette local',
  lamp: 'lantern street light source relight spotlight',
  glaze: 'tint colour solid gradient wash paint grade dodge burn graduated nd',
  adjust:
    'exposure contrast white balance brightness shadows highlights saturation vibrance temperature tone local clear clarity structure detail texture dodge burn levels',
  curves: 'tone curve levels contrast grade grading s',
  colourBalance: 'three-way shadows midtones highlights grade grading colour tint split toning',
  oneHue: 'hue saturation lightness single colour only',
  colourTable: 'lut cube grade grading film look 3d lookup',
  sharpen: 'unsharp mask sharpening detail crisp output clarity structure texture microcontrast',
  vignette: 'vignetting darken corners edges frame falloff',
  grain: 'film noise texture analogue iso',
  fringe: 'chromatic aberration lens colour ca rgb shift',
  wear: 'scratches dust old vintage paper texture plate light leak retro',
  overlay: 'picture image texture sky replacement composite compositing layer file import bird',
  customField: 'noise texture clouds fire lightning pattern own procedural motion blur displacement',
}

/** By the id of the look. */
export const wordsOfLook: Readonly<Record<string, string>> = {
  'star-trails': 'startrails rotation long exposure',
  'band-of-stars': 'milky way galaxy',
  'clearer-air': 'removing remove haze',
  clearer: 'clarity',
  'rush-of-the-picture': 'zoom blur radial speed motion',
  'discs-of-light': 'bokeh balls',
  'dream-bloom': 'dreamy',
  'gentle-s': 's-curve contrast',
  faded: 'matte film',
  'high-pass': 'high pass',
  'mist-on-the-lens': 'mist filter',
  'blue-hollows-warm-lights': 'teal orange split toning',
  'as-night': 'day for night',
  'window-light': 'gobo',
  'scan-lines': 'crt glitch interlaced',
}
