import { createHash } from 'node:crypto'
import { readFile, writeFile } from 'node:fs/promises'
import { basename, dirname, join } from 'node:path'
import { parseArgs } from 'node:util'
import {
  allColourSpaces,
  effectOfNode,
  exifFor,
  exifOf,
  exportFormats,
  fileIdOf,
  fileFormats,
  formatOfName,
  framedGraph,
  frameOfSource,
  gridAt,
  groundworkFor,
  intersect,
  inColourId,
  marksFor,
  noMarks,
  notRead,
  colourSpaces,
  parseMarks,
  parseRecipe,
  picturesOfStack,
  regionOnGrid,
  stackFor,
  stackWithout,
  UserProblem,
  usesReading,
  wideId,
  workingSpaceOf,
  type ExportFormat,
  type Grid,
  type ColourSpace,
  type PictureReference,
  type PictureSource,
  type Rect,
} from '@welkinar/core'
import { priorities, RenderProblem, type Opened, type RenderPool } from '@welkinar/core/pool'
import { createNodePool } from './nodePool'

const USAGE =
  'npm run render -- --photo in.jpg --recipe recipe.json --out out.png [--marks marks.json] [--scale 0.25] [--region x,y,width,height] [--quality 92] [--bits 16] [--colours display-p3] [--place drop] [--reading no] [--threads 2] [--memory 400]'
const TILE = 512

interface Task {
  readonly photo: string
  readonly recipe: string
  /** File with scene marks and depth. */
  readonly marks: string | undefined
  readonly out: string
  readonly format: ExportFormat
  readonly scale: number
  readonly region: Rect | undefined
  readonly quality: number
  readonly bits: 8 | 16
  readonly space: ColourSpace
  /** Whether the file may say where the photo was taken. */
  readonly place: boolean
  /** Whether the photo is read if there are no marks. */
  readonly reading: boolean
  readonly threads: number | undefined
  /** Most that results may take, megabytes. */
  readonly memory: number | undefined
}

function readTask(): Task {
  const options = {
    photo: '',
    recipe: '',
    marks: '',
    out: '',
    scale: '',
    region: '',
    quality: '',
    bits: '',
    colours: '',
    place: '',
    reading: '',
    threads: '',
    memory: '',
  }
  const { values } = parseOptions(Object.keys(options))
  const required = (name: 'photo' | 'recipe' | 'out'): string => {
    const value = values[name]
    if (!value) throw new UserProblem(`--${name} is missing. Usage: ${USAGE}`)
    return value
  }
  const out = required('out')
  return {
    photo: required('photo'),
    recipe: required('recipe'),
    marks: values['marks'],
    out,
    format: formatOf(out),
    scale: numberOption(values['scale'], 'scale', 0.001, 1) ?? 1,
    region: values['region'] === undefined ? undefined : readRegion(values['region']),
    quality: numberOption(values['quality'], 'quality', 1, 100) ?? 92,
    place: choiceOf('place', values['place'], 'keep', 'drop'),
    reading: choiceOf('reading', values['reading'], 'yes', 'no'),
    bits: bitsOf(values['bits'], formatOf(out)),
    space: spaceOf(values['colours']),
    threads: numberOption(values['threads'], 'threads', 1, 64),
    memory: numberOption(values['memory'], 'memory', 16, 1e6),
  }
}

function parseOptions(names: readonly string[]): { values: Record<string, string | undefined> } {
  try {
    const options = Object.fromEntries(names.map((name) => [name, { type: 'string' as const }]))
    return parseArgs({ options, strict: true }) as { values: Record<string, string | undefined> }
  } catch (error) {
    throw new UserProblem(`${(error as Error).message} Usage: ${USAGE}`)
  }
}

function formatOf(out: string): ExportFormat {
  const format = formatOfName(out)
  if (format) return format
  const endings = exportFormats.map((one) => `.${fileFormats[one].endings[0]}`)
  throw new UserProblem(`--out ends in ${endings.join(' or ')}; “${out}” came.`)
}

function bitsOf(text: string | undefined, format: ExportFormat): 8 | 16 {
  const { name, depths } = fileFormats[format]
  const depth = depths.find((one) => String(one) === (text ?? '8'))
  if (depth) return depth
  throw new UserProblem(`--bits of ${name} is ${depths.join(' or ')}; “${text}” came.`)
}

/** A space by its label, in lower case. */
function spaceOf(text = 'srgb'): ColourSpace {
  const names = allColourSpaces.map((space) => colourSpaces[space].label.toLowerCase())
  const space = allColourSpaces[names.indexOf(text)]
  if (space) return space
  throw new UserProblem(`--colours is ${names.join(' or ')}; “${text}” came.`)
}

/** Whether an option is not refused. */
function choiceOf(name: string, text: string | undefined, usual: string, other: string): boolean {
  if (text === undefined || text === usual || text === other) return text !== other
  throw new UserProblem(`--${name} is ${usual} or ${other}; “${text}” came.`)
}

function numberOption(text: string | undefined, name: string, least: number, most: number): number | undefined {
  if (text === undefined) return undefined
  const value = Number(text)
  if (text.trim() === '' || !(value >= least && value <= most)) {
    throw new UserProblem(`--${name} is a number from ${least} to ${most}; “${text}” came.`)
  }
  return value
}

function readRegion(text: string): Rect {
  const [x, y, width, height, ...more] = text.split(',').map(Number)
  const valid = [x, y, width, height].every((value) => value !== undefined && Number.isFinite(value))
  if (!valid || more.length > 0 || !((width ?? 0) > 0 && (height ?? 0) > 0)) {
    throw new UserProblem(`--region is x,y,width,height in photo px, width and height above 0; “${text}” came.`)
  }
  return { x: x ?? 0, y: y ?? 0, width: width ?? 0, height: height ?? 0 }
}

async function readInput(path: string): Promise<Uint8Array> {
  try {
    return await readFile(path)
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code
    throw new UserProblem(`“${path}” cannot be read: ${code === 'ENOENT' ? 'there is no such file' : code}.`)
  }
}

/** The part of the frame that is asked for, on the grid; all of it without a region. */
function rectFor(region: Rect | undefined, grid: Grid, source: PictureSource): Rect {
  const frame = frameOfSource(source)
  const rect = regionOnGrid(region ? intersect(region, frame) : frame, grid)
  if (rect.width > 0 && rect.height > 0) return rect
  const { x, y, width, height } = frame
  const from = x > 0 || y > 0 ? ` from ${x}, ${y} on` : ''
  throw new UserProblem(`--region lies outside the photo, which is ${width} × ${height} px${from}.`)
}

async function renderFile(task: Task, pool: RenderPool): Promise<void> {
  const recipe = parseRecipe(new TextDecoder().decode(await readInput(task.recipe)), basename(task.recipe))
  const bytes = await readInput(task.photo)
  const opened = await openInItsColours(bytes, basename(task.photo), pool)
  opened.notices.forEach((notice) => console.error(notice))
  const { photo } = opened
  const grid = gridAt(photo, task.scale)
  const stack = stackFor(recipe, photo)
  const missing = await openPictures(picturesOfStack(stack), dirname(task.recipe), pool)
  const unmarked: PictureSource = { photo, amount: recipe.amount, ...stackWithout(stack, missing) }
  const source = { ...unmarked, ...(await readMarks(task, pool, unmarked)) }
  const rect = rectFor(task.region, grid, source)
  const options = { format: task.format, quality: task.quality, depth: task.bits, space: task.space }
  const request = {
    node: framedGraph(source),
    grid,
    rect,
    tileSize: TILE,
    priority: priorities.export,
    working: workingSpaceOf(photo.id),
    options,
    exif: exifFor(exifOf(bytes), rect, task.place, task.space),
  }
  const file = await pool.renderFile(request).catch((error: unknown) => {
    if (!(error instanceof RenderProblem)) throw error
    const effect = error.nodeKey === undefined ? undefined : effectOfNode(source, error.nodeKey)
    throw new UserProblem(error.inWords(effect ? `“${effect.name}”` : 'The picture'))
  })
  await writeFile(task.out, new Uint8Array(await file.arrayBuffer())).catch((error: NodeJS.ErrnoException) => {
    throw new UserProblem(`“${task.out}” cannot be written: ${error.code}.`)
  })
}

/** Opens a photo in sRGB, or once more in the wider space if sRGB does not have its colours. */
async function openInItsColours(bytes: Uint8Array, fileName: string, pool: RenderPool): Promise<Extract<Opened, { wide: boolean }>> {
  const id = inColourId('photo')
  const opened = await pool.openPhoto(id, bytes, fileName)
  if ('problem' in opened) throw new UserProblem(opened.problem)
  if (!opened.wide) return opened
  await pool.dropPhoto(id)
  const again = await pool.openPhoto(wideId(id), bytes, fileName)
  if ('problem' in again) throw new UserProblem(again.problem)
  return again
}

/** Opens the pictures that a recipe reads, which lie beside it. Returns the ids of those that are not there, or are others; it is said which. */
async function openPictures(pictures: readonly PictureReference[], folder: string, pool: RenderPool): Promise<string[]> {
  const missing: string[] = []
  for (const { id, fileName } of pictures) {
    const bytes = await readFile(join(folder, basename(fileName))).catch(() => undefined)
    const isIt = bytes && createHash('sha256').update(bytes).digest('hex') === fileIdOf(id)
    const opened = isIt ? await pool.openPhoto(id, bytes, fileName) : undefined
    if (opened && 'photo' in opened) continue
    missing.push(id)
    const why = opened?.problem ?? (bytes ? 'The file beside the recipe is another.' : 'It is not beside the recipe.')
    console.error(`The recipe reads the picture “${fileName}”; what reads it is left out. ${why}`)
  }
  return missing
}

/** Marks, groundwork and depth of the photo, if a file with them is given. */
async function readMarks({ marks: path, reading }: Task, pool: RenderPool, unmarked: PictureSource): Promise<Partial<PictureSource>> {
  const { photo } = unmarked
  // Without marks it goes by what the photo shows, as a new scene does, if that changes anything.
  if (path === undefined)
    return { marks: { ...noMarks, reading: reading && usesReading(unmarked) ? await pool.readPhoto(photo.id) : notRead } }
  const file = parseMarks(new TextDecoder().decode(await readInput(path)), basename(path))
  const marks = marksFor(file, photo)
  const groundwork = groundworkFor(file, photo)
  if (!file.depth) return { marks, groundwork }
  const { file: name, ...depth } = file.depth
  const opened = await pool.openPhoto('depth', await readInput(join(dirname(path), name)), name)
  if ('problem' in opened) throw new UserProblem(opened.problem)
  const { width, height } = opened.photo
  return { marks, groundwork, depth: { ...depth, picture: { id: 'depth', fileName: name, width, height } } }
}

async function main(): Promise<void> {
  const task = readTask()
  const pool = await createNodePool(task.threads, task.memory === undefined ? {} : { mostMemory: task.memory * 1e6 })
  try {
    await renderFile(task, pool)
  } finally {
    pool.dispose()
  }
}

await main().catch((error: unknown) => {
  // One line, whatever went wrong.
  const text = error instanceof Error ? error.message : String(error)
  console.error(error instanceof UserProblem ? text : `Something went wrong: ${text.split('\n')[0]}`)
  process.exitCode = 1
})
