import { effectDefinitions } from '../effects/registry'
import { noBrights } from './reading'
import { TOLERANCE } from '../masks/brush/definition'
import { ageOf, documentVersion } from './version'

// Documents of version 1 had one kind of mask, and neither groups, pinned states nor scene marks. What is new, in them and in later ones, has a value at which
// nothing changes, so that upgrading fills gaps only, wherever an effect or a mask stands: also inside the patches of a history, which no schema fills.

type Json = Record<string, unknown>

/** Words of looks that are called otherwise now. */
const formerly: Readonly<Record<string, string>> = { 'Stars drawn long': 'Star trails' }

/** A value of whatever size with each object in it as `fill` gives it, what lies within first. The value itself stays as it is. */
function filled(value: unknown, fill: (value: Json) => Json): unknown {
  if (Array.isArray(value)) return value.map((item) => filled(item, fill))
  if (typeof value !== 'object' || value === null) return value
  return fill(Object.fromEntries(Object.entries(value).map(([key, item]) => [key, filled(item, fill)])))
}

/** An effect of minor version 0 or before, whose name was the word of its look, keeps the look instead. */
function withLook(value: Json): Json {
  if (!has(value, 'kind', 'controls', 'where', 'mix') || 'look' in value) return value
  const look = effectDefinitions
    .find(({ kind }) => kind === value['kind'])
    ?.startingLooks.find(({ name }) => name === (formerly[String(value['name'])] ?? value['name']))
  return look ? { ...value, look: look.id, name: '' } : value
}

/** A colour that is its tint. */
const plainColour = { light: null, kelvin: null, lit: 0, ramp: null, balance: null }

function withGapsFilled(value: Json): Json {
  if (has(value, 'kind', 'controls', 'where', 'mix')) return { group: null, region: null, ...value, controls: controlsFilled(value) }
  if (has(value, 'kind', 'join', 'feather', 'tonesFrom')) {
    return { name: '', grow: 0, edges: 0, pinned: null, ...(value['kind'] === 'luminosity' ? { free: null } : {}), ...value }
  }
  if (has(value, 'size', 'hardness', 'flow', 'points')) return { guides: [], tolerance: TOLERANCE, ...value }
  if (has(value, 'method', 'horizon', 'sky', 'light')) return { water: null, brights: noBrights, ...value }
  // A glint that is put back by itself.
  if (has(value, 'x', 'y', 'size') && Object.keys(value).length === 3) return { turn: 0, ...value }
  // Controls of some kinds have a tint too, among others.
  if (has(value, 'tint') && Object.keys(value).every((key) => key === 'tint' || key in plainColour)) return { ...plainColour, ...value }
  return value
}

/** Controls that a kind got later take the value at which nothing changes. */
function controlsFilled({ kind, controls }: Json): unknown {
  const definition = effectDefinitions.find((candidate) => candidate.kind === kind)
  return definition?.controls.safeParse(controls).data ?? controls
}

/** A part of a document of whatever earlier version, as the patches of a history hold them. The value itself stays as it is. */
export function upgradePart(value: unknown): unknown {
  return filled(value, (part) => withLook(withGapsFilled(part)))
}

/** What scenes and recipes of version 1 did not have. */
const laterThanVersion1 = {
  'welkinar-scene': { groups: [], pinned: [], marks: { lights: [], horizon: null, waterline: null, focal: null }, depth: null },
  'welkinar-recipe': { groups: [], pinned: [] },
} as const

/** Earlier versions of each format. Marks had version 1 as long as scenes and recipes had 1 and 2. */
const earlier: Readonly<Record<string, readonly unknown[]>> = { 'welkinar-scene': [1, 2], 'welkinar-recipe': [1, 2], 'welkinar-marks': [1] }

/** A document of an earlier version as one of the current; any other value as it is. The value itself stays as it is. */
export function upgradeDocument(document: unknown): unknown {
  const { version, minor, format } = (document ?? {}) as Json
  if (typeof format !== 'string') return document
  if (version === documentVersion.version && ageOf(document) === 'known') {
    return { ...((minor === documentVersion.minor ? document : filled(document, withLook)) as Json), ...documentVersion }
  }
  if (!earlier[format]?.includes(version)) return document
  if (version === 2 || format === 'welkinar-marks') return { ...(filled(document, withLook) as Json), ...documentVersion }
  return { ...laterThanVersion1[format as keyof typeof laterThanVersion1], ...(upgradePart(document) as Json), ...documentVersion }
}

function has(value: Json, ...keys: string[]): boolean {
  return keys.every((key) => key in value)
}
