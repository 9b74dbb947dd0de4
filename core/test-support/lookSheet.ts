import { fileURLToPath } from 'node:url'
import sharp, { type OverlayOptions } from 'sharp'
import { newEffect } from '../src/effects/newEffect'
import { effectDefinitions, type EffectKind } from '../src/effects/registry'
import type { Kernels } from '../src/graph/operation'
import { noMarks } from '../src/model/marks'
import type { PhotoData } from '../src/photo/photoData'
import { readPhoto } from '../src/reading/readPhoto'
import { sceneGraph } from '../src/render/sceneGraph'
import { evaluatorFor, photoFrom, renderAll } from './pictures'

/** The sample photo that each kind is meant for; the others are shown on the quay. */
const photoOf: Partial<Record<EffectKind, string>> = {
  ...{ snow: 'survey-hut', stars: 'moored-skiff', fog: 'pine-inlet', haze: 'pine-inlet', rays: 'headland', sunburst: 'headland' },
  ...{ lowSun: 'headland', dust: 'ship-lantern', sparkles: 'ship-lantern', subjectGlow: 'ship-lantern', glowLine: 'ship-lantern' },
  ...{ softFocus: 'pine-inlet', catchLights: 'survey-hut', customField: 'headland', glaze: 'survey-hut' },
}

const [WIDTH, LABEL, COLUMNS, READ_AT] = [360, 18, 5, 1500]

/** Every starting look on a sample photo with nothing marked, as one JPEG file. @param photos folder of the sample photos */
export async function lookSheet(kernels: Kernels, photos: URL): Promise<Buffer> {
  const opened = new Map<string, PhotoData>()
  const open = async (name: string): Promise<PhotoData> => {
    const known = opened.get(name)
    if (known) return known
    const file = fileURLToPath(new URL(`${name}.jpg`, photos))
    const { data, info } = await sharp(file).resize(READ_AT).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
    const photo = photoFrom(kernels, name, info.width, info.height, data)
    opened.set(name, photo)
    return photo
  }
  const looks = effectDefinitions
    .filter(({ madeFromEffect }) => !madeFromEffect)
    .flatMap(({ kind, label, startingLooks }) => startingLooks.map(({ name }) => ({ kind, label, look: name })))
  const height = Math.round((WIDTH * 2) / 3)
  const parts: OverlayOptions[] = []
  for (const [i, { kind, label, look }] of looks.entries()) {
    const photo = await open(photoOf[kind] ?? 'ferry-quay')
    const marks = { ...noMarks, reading: readPhoto(kernels, photo) }
    const effect = newEffect(photo, { kind, look, id: look, marks })
    const shown = renderAll(evaluatorFor(kernels, photo), sceneGraph({ photo, effects: [effect], marks }), photo, WIDTH / photo.width)
    const raw = { width: shown.width, height: shown.height, channels: 4 as const }
    const [left, top] = [(i % COLUMNS) * WIDTH, Math.floor(i / COLUMNS) * (height + LABEL)]
    const words = `<svg width="${WIDTH}" height="${LABEL}"><text x="4" y="13" font-family="sans-serif" font-size="12" fill="#fff">${label}: ${look}</text></svg>`
    const picture = await sharp(Buffer.from(shown.pixels), { raw }).removeAlpha().resize(WIDTH, height, { fit: 'cover' }).png().toBuffer()
    parts.push({ input: picture, left, top: top + LABEL }, { input: Buffer.from(words), left, top })
  }
  const size = { width: COLUMNS * WIDTH, height: Math.ceil(looks.length / COLUMNS) * (height + LABEL) }
  return sharp({ create: { ...size, channels: 3, background: '#222222' } })
    .composite(parts)
    .jpeg({ quality: 78 })
    .toBuffer()
}
