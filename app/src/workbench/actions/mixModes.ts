import { isEffect, mixModes, modeLabels, type MixMode, type Owner } from '@welkinar/core'
import { changeOwner } from '../../scene/sceneStore'

/** What a mode does to the picture, for finding one. */
export const modeFamilies: readonly { readonly title: string; readonly modes: readonly MixMode[] }[] = [
  { title: 'Covers', modes: ['normal'] },
  { title: 'Lightens', modes: ['screen', 'plus-lighter', 'lighten', 'color-dodge'] },
  { title: 'Darkens', modes: ['multiply', 'darken', 'color-burn', 'subtract'] },
  { title: 'Adds contrast', modes: ['overlay', 'soft-light', 'hard-light', 'linear-light'] },
  { title: 'Compares', modes: ['difference', 'exclusion'] },
  { title: 'Takes over a part of the colour', modes: ['hue', 'saturation', 'color', 'luminosity'] },
]

const inOrder = modeFamilies.flatMap(({ modes }) => modes)

/** The mode before (-1) or after (1) the present one, in the order of the list. */
export function neighbourMode(mode: MixMode, by: -1 | 1): MixMode {
  return inOrder[(inOrder.indexOf(mode) + by + inOrder.length) % inOrder.length] ?? mode
}

export function modeNamed(value: string): MixMode | undefined {
  return mixModes.find((candidate) => candidate === value)
}

export function setMode(owner: Owner, mode: MixMode): void {
  changeOwner(owner.id, `Mix: ${modeLabels[mode]}`, (one) => void (one.mix.mode = mode))
}

/** A group that passes through has no blending of its own. */
export function modeLabel(owner: Owner, mode: MixMode): string {
  return mode === 'normal' && !isEffect(owner) ? 'Normal (passes through)' : modeLabels[mode]
}
