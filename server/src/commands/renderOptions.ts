import {
  allColourSpaces,
  colourSpaces,
  exportFormats,
  fileFormats,
  formatOfName,
  type ColourSpace,
  type ExportFormat,
  type Rect,
} from '@welkinar/core'
import { InvalidArgumentError, Option, type Command } from 'commander'
import type { BatchTask } from './batch'
import { CallProblem } from '../callProblem'
import type { MotionTask } from './motion'

/** What `welkinar render` is asked for. */
export interface RenderTask {
  readonly photo: string
  readonly recipe: string
  /** File with scene marks and depth. */
  readonly marks?: string
  readonly out: string
  readonly format: ExportFormat
  readonly scale: number
  readonly region?: Rect
  readonly quality: number
  readonly bits: 8 | 16
  readonly colours: ColourSpace
  /** Whether the file may say where the photo was taken. */
  readonly place: 'keep' | 'drop'
  /** Whether the photo is read if there are no marks. */
  readonly reading: 'yes' | 'no'
  readonly threads?: number
  /** Most that results may take, megabytes. */
  readonly memory?: number
  readonly overwrite: boolean
  readonly reduce: boolean
  readonly progress: boolean
}

const RECIPE = 'recipe, as the Workbench saves it (pictures that it reads lie beside it), or a built-in one: built-in:last-light'

const spaceNames = allColourSpaces.map((space) => colourSpaces[space].label.toLowerCase())

/** Adds the options of `render` to a command. */
export function withRenderOptions(command: Command): Command {
  const endings = exportFormats.map((format) => `.${fileFormats[format].endings[0]}`).join(', ')
  return withSharedOptions(
    command
      .requiredOption('--photo <file>', 'photo that the recipe is laid on')
      .requiredOption('--recipe <file>', RECIPE)
      .requiredOption('--out <file>', `file to write; its ending says the format: ${endings}`)
      .option('--marks <file>', 'marks and groundwork, as the Workbench saves them; without them the photo is read')
      .option('--region <x,y,width,height>', 'part of the photo, photo px', readRegion),
  )
}

/** Adds the options of `batch` to a command. */
export function withBatchOptions(command: Command): Command {
  return withSharedOptions(
    command
      .requiredOption('--photos <files...>', 'photos, or patterns of their names such as "in/*.jpg" or "s3://bucket/in/*.jpg"')
      .requiredOption('--recipe <file>', RECIPE)
      .requiredOption('--out <folder>', 'folder, or s3://bucket/folder, to write to; its folder "runs" keeps what was made')
      .option('--formats <endings>', 'endings of the files that are made of each photo, separated by commas', 'png')
      .addOption(numberOption('--jobs <number>', 'photos that are worked on here at the same time', 1, 64).default(1))
      .addOption(redisOption('hand the photos to the workers of a queue on Redis: its address'))
      .option('--json', 'give the report as JSON', false),
  )
}

/** Adds the options of `worker` to a command. */
export function withWorkerOptions(command: Command): Command {
  return command
    .addOption(redisOption('address of the Redis of the queue').makeOptionMandatory())
    .addOption(numberOption('--jobs <number>', 'photos that are worked on at the same time', 1, 64).default(1))
    .addOption(
      numberOption('--lease <seconds>', 'how long a worker may be silent until its photo is given to another', 1, 3600).default(30),
    )
    .addOption(threadsOption())
    .addOption(memoryOption())
    .option('--progress', 'say what is taken and done, as lines of JSON on standard output', false)
}

/** An address with a password is not one for the command line, where everybody on the machine sees it. */
function redisOption(description: string): Option {
  return new Option('--redis <url>', `${description}; one with a password stands in WELKINAR_REDIS`)
    .env('WELKINAR_REDIS')
    .argParser((url: string) => {
      if (url !== process.env['WELKINAR_REDIS'] && URL.canParse(url) && new URL(url).password !== '') {
        throw new CallProblem('An address with a password stands in the environment, as WELKINAR_REDIS.')
      }
      return url
    })
}

function threadsOption(): Option {
  return numberOption('--threads <number>', 'threads that compute; as many as there are cores, up to 16, if left out', 1, 64)
}

function memoryOption(): Option {
  return numberOption('--memory <megabytes>', 'most that results of all threads may take', 16, 1e6)
}

/** Adds the options of `motion` to a command. */
export function withMotionOptions(command: Command): Command {
  return withSharedOptions(
    command
      .requiredOption('--photo <file>', 'photo that the recipe is laid on')
      .requiredOption('--recipe <file>', RECIPE)
      .requiredOption(
        '--out <file or folder>',
        'one PNG that moves, by its ending .png; else a folder for the frames, numbered from 0001.png on',
      )
      .addOption(numberOption('--seconds <number>', 'how long it takes to come round', 0.1, 600).default(8))
      .addOption(numberOption('--rate <number>', 'frames a second', 1, 60).default(12))
      .option('--marks <file>', 'marks and groundwork, as the Workbench saves them; without them the photo is read')
      .option('--region <x,y,width,height>', 'part of the photo, photo px', readRegion),
  )
}

/** The task of the options of a call. @throws CallProblem if they do not go together */
export function motionOf({ bits, colours, ...options }: Record<string, unknown> & { bits: string; colours: string }): MotionTask {
  return { ...(options as unknown as Omit<MotionTask, 'bits' | 'colours'>), bits: bitsOf(bits, 'png'), colours: spaceOf(colours) }
}

/** What all commands that compute pictures can be told. */
function withSharedOptions(command: Command): Command {
  return command
    .addOption(numberOption('--scale <part>', 'size against the photo', 0.001, 1).default(1))
    .addOption(numberOption('--quality <percent>', 'of JPEG, WebP and AVIF', 1, 100).default(92))
    .option('--bits <number>', 'bits of a channel: 8, of PNG and TIFF also 16', '8')
    .addOption(new Option('--colours <space>', 'colour space of the file').choices(spaceNames).default('srgb'))
    .addOption(new Option('--place <what>', 'whether the file may say where the photo was taken').choices(['keep', 'drop']).default('keep'))
    .addOption(new Option('--reading <what>', 'whether a photo without marks is read').choices(['yes', 'no']).default('yes'))
    .addOption(threadsOption())
    .addOption(memoryOption())
    .option('--overwrite', 'replace the file that is there', false)
    .option('--reduce', 'open a photo over the size limit at a size below it', false)
    .option('--progress', 'say how far it is, as lines of JSON on standard output', false)
}

/** The task of the options of a call. @throws CallProblem if they do not go together */
export function taskOf({ bits, colours, ...options }: Record<string, unknown> & { bits: string; colours: string }): RenderTask {
  const { out } = options as { out?: string }
  const format = formatOf(out ?? '')
  return {
    ...(options as unknown as Omit<RenderTask, 'format' | 'bits' | 'colours'>),
    format,
    bits: bitsOf(bits, format),
    colours: spaceOf(colours),
  }
}

/** The task of the options of a call. @throws CallProblem if they do not go together */
export function batchOf({
  bits,
  colours,
  formats,
  ...options
}: Record<string, unknown> & Record<'bits' | 'colours' | 'formats', string>): BatchTask {
  const endings = [...new Set(formats.split(',').map((one) => one.trim().replace(/^\./, '').toLowerCase()))]
  const outputs = endings.map((ending) => {
    const format = formatOf(`.${ending}`, '--formats are endings:')
    // Of several formats each has the bits that it can have.
    return {
      ending,
      format,
      bits: endings.length > 1 && !fileFormats[format].depths.some((one) => String(one) === bits) ? 8 : bitsOf(bits, format),
    } as const
  })
  return { ...(options as unknown as Omit<BatchTask, 'outputs' | 'colours'>), outputs, colours: spaceOf(colours) }
}

function spaceOf(colours: string): ColourSpace {
  return allColourSpaces[spaceNames.indexOf(colours)] ?? 'srgb'
}

function formatOf(out: string, saying = '--out ends in'): ExportFormat {
  const format = formatOfName(out)
  if (format) return format
  const endings = exportFormats.map((one) => `.${fileFormats[one].endings[0]}`)
  throw new CallProblem(`${saying} ${endings.join(' or ')}; “${out}” came.`)
}

function bitsOf(text: string, format: ExportFormat): 8 | 16 {
  const { name, depths } = fileFormats[format]
  const depth = depths.find((one) => String(one) === text)
  if (depth) return depth
  throw new CallProblem(`--bits of ${name} is ${depths.join(' or ')}; “${text}” came.`)
}

function numberOption(flags: string, description: string, least: number, most: number): Option {
  return new Option(flags, `${description} (${least} to ${most})`).argParser((text: string) => {
    const value = Number(text)
    if (text.trim() !== '' && value >= least && value <= most) return value
    throw new InvalidArgumentError(`It is a number from ${least} to ${most}.`)
  })
}

function readRegion(text: string): Rect {
  const [x, y, width, height, ...more] = text.split(',').map((part) => (part.trim() === '' ? NaN : Number(part)))
  const valid = [x, y, width, height].every((value) => value !== undefined && Number.isFinite(value))
  if (!valid || more.length > 0 || !((width ?? 0) > 0 && (height ?? 0) > 0)) {
    throw new InvalidArgumentError('It is x,y,width,height in photo px, width and height above 0.')
  }
  return { x: x ?? 0, y: y ?? 0, width: width ?? 0, height: height ?? 0 }
}
