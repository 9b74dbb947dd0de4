import { fileURLToPath } from 'node:url'
import sharp from 'sharp'
import { newEffect } from '../src/effects/newEffect'
import { effectDefinitions, type EffectKind } from '../src/effects/registry'
import type { Kernels } from '../src/graph/operation'
import { noMarks } from '../src/model/marks'
import type { PhotoData } from '../src/photo/photoData'
import { readPhoto } from '../src/reading/readPhoto'
import { sceneGraph } from '../src/render/sceneGraph'
import { contactSheet, type SheetCell } from './contactSheet'
import { evaluatorFor, photoFrom, renderAll } from './pictures'

/** The sample photo that each kind is meant for; the others are shown on the quay. */
const photoOf: Partial<Record<EffectKind, string>> = {
  ...{ snow: 'survey-hut', stars: 'moored-skiff', fog: 'pine-inlet', haze: 'pine-inlet', rays: 'headland', sunburst: 'headland' },
  ...{ lowSun: 'headland', dust: 'ship-lantern', sparkles: 'ship-lantern', subjectGlow: 'ship-lantern', glowLine: 'ship-lantern' },
  ...{ reflection: 'headland', softFocus: 'pine-inlet', catchLights: 'survey-hut', customField: 'headland', glaze: 'survey-hut' },
}

/** What each look of an overlay is laid with: a sample photo, or a drawing. */
const laid: Record<string, string> = {
  'as-it-is': 'ship-lantern',
  'a-sky-of-its-own': 'headland',
  'sparks-on-black': drawing('#000', '#ffb45c', 5),
  'cut-out-of-white': drawing('#fff', '#a33225', 26),
}

const [WIDTH, COLUMNS, READ_AT] = [360, 5, 1500]

/** Every starting look on a sample photo with nothing marked, as one JPEG file. @param photos folder of the sample photos */
export async function lookSheet(kernels: Kernels, photos: URL): Promise<Buffer> {
  const opened = new Map<string, PhotoData>()
  const open = async (name: string): Promise<PhotoData> => {
    const known = opened.get(name)
    if (known) return known
    const file = name.startsWith('<svg') ? Buffer.from(name) : fileURLToPath(new URL(`${name}.jpg`, photos))
    const { data, info } = await sharp(file).resize(READ_AT).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
    const photo = photoFrom(kernels, name, info.width, info.height, data)
    opened.set(name, photo)
    return photo
  }
  const looks = effectDefinitions.flatMap(({ kind, label, startingLooks }) =>
    startingLooks.map(({ id, name }) => ({ kind, label, look: id, name })),
  )
  const cells: SheetCell[] = []
  for (const { kind, label, look, name } of looks) {
    const photo = await open(photoOf[kind] ?? 'ferry-quay')
    const marks = { ...noMarks, reading: readPhoto(kernels, photo) }
    const effect = newEffect(photo, { kind, look, id: look, marks })
    const effects = [effect]
    const pictures: PhotoData[] = []
    if (effect.kind === 'overlay') {
      const other = await open(laid[look] ?? '')
      pictures.push(other)
      effect.controls.pattern.picture = { id: other.id, fileName: '', width: other.width, height: other.height }
    }
    if (effect.kind === 'reflection') {
      effects.unshift(newEffect(photo, { kind: 'sunburst', look: 'sun-between-posts', id: 'sun', marks }))
      effect.controls.pattern.of = 'sun'
    }
    const graph = sceneGraph({ photo, effects, marks })
    const shown = renderAll(evaluatorFor(kernels, photo, ...pictures), graph, photo, WIDTH / photo.width)
    cells.push({ words: `${label}: ${name}`, ...shown })
  }
  return contactSheet(cells, COLUMNS, WIDTH)
}

/** Some dots of a colour on another one. */
function drawing(ground: string, colour: string, radius: number): string {
  const dots = Array.from(
    { length: 14 },
    (_, i) => `<circle cx="${(i * 89) % 300}" cy="${(i * 53) % 200}" r="${radius * (0.4 + (i % 4) / 5)}"/>`,
  )
  return `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><rect width="300" height="200" fill="${ground}"/><g fill="${colour}">${dots.join('')}</g></svg>`
}
