import { existsSync } from 'node:fs'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { availableParallelism, cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { browserRows } from './browserRows'
import { coreRows } from './coreRows'
import { effectRows } from './effectRows'
import { extremeRows } from './extremeRows'
import { graphRows } from './graphRows'
import { jobRows, writePhoto } from './jobRows'
import { kernelRows } from './kernelRows'
import { lightRows } from './lightRows'
import { localRows } from './localRows'
import { manyRows } from './manyRows'
import { maskRows } from './maskRows'
import type { Row } from './measure'
import { benchPhoto, testPixels, type BenchPhoto } from './photo24'
import { readingRows } from './readingRows'
import { finishRows, fullSizeRows, stackRows } from './stackRows'
import { weatherRows } from './weatherRows'

// npm run bench [-- --only NAME]: prints tables and writes them to docs/benchmarks.md; of the others stays what was measured before.

interface Bench {
  readonly photo: BenchPhoto
  readonly folder: string
  /** The test picture as a JPEG file. */
  readonly file: string
}

const groups: Readonly<Record<string, { readonly title: string; readonly rows: (bench: Bench) => Row[] | Promise<Row[]> }>> = {
  graphs: { title: 'Graphs', rows: graphRows },
  fullSize: { title: 'Every starting look alone, 24 MP, at full size', rows: ({ folder, file }) => fullSizeRows(folder, file) },
  finish: { title: 'What is done to the photo, and a whole finish, 24 MP', rows: ({ folder, file }) => finishRows(folder, file) },
  stacks: { title: 'Stacks as artists build them', rows: ({ folder }) => stackRows(folder) },
  cores: { title: 'More threads', rows: ({ folder, file }) => coreRows(folder, file) },
  kernels: { title: 'Blur and mix', rows: ({ photo }) => kernelRows(photo) },
  masks: { title: 'Masks', rows: ({ photo }) => maskRows(photo) },
  looks: { title: 'Every starting look in the fitted view', rows: ({ photo }) => effectRows(photo) },
  weather: { title: 'Weather', rows: ({ photo }) => weatherRows(photo) },
  light: { title: 'Light', rows: ({ photo }) => lightRows(photo) },
  jobs: { title: 'Whole jobs, from file to file', rows: ({ folder, file }) => jobRows(folder, file) },
  extremes: { title: 'Settings of the highest cost', rows: ({ photo }) => extremeRows(photo) },
  reading: { title: 'Reading', rows: ({ photo }) => readingRows(photo) },
  many: { title: 'From one picture to many', rows: ({ folder, file }) => manyRows(folder, file) },
  hand: { title: 'Local work in Chromium', rows: ({ file }) => localRows(file) },
  browser: { title: 'In Chromium', rows: ({ file }) => browserRows(file) },
}

const page = fileURLToPath(new URL('../../docs/benchmarks.md', import.meta.url))
const { only } = parseArgs({ options: { only: { type: 'string', multiple: true } } }).values
const unknown = only?.find((name) => !(name in groups))
if (unknown) {
  console.error(`There is no group “${unknown}”; there are ${Object.keys(groups).join(', ')}.`)
  process.exit(1)
}

const before = existsSync(page) ? sectionsOf(await readFile(page, 'utf8')) : {}
const folder = await mkdtemp(join(tmpdir(), 'welkinar-bench-'))
const pixels = testPixels()
const bench: Bench = { photo: await benchPhoto(pixels), folder, file: await writePhoto(folder, pixels) }
for (const [name, { title, rows }] of Object.entries(groups)) {
  if (only && !only.includes(name)) continue
  const section = table(await rows(bench))
  console.log(`## ${title}\n\n${section}\n`)
  before[title] = section
  await writeFile(page, whole(before))
}
await rm(folder, { recursive: true })

function whole(sections: Readonly<Record<string, string>>): string {
  // Titles in their order; what is no longer measured stays at the end until somebody takes it out.
  const titles = new Set([...Object.values(groups).map(({ title }) => title), ...Object.keys(sections)])
  const known = [...titles].flatMap((title) => (sections[title] ? [`## ${title}\n\n${sections[title]}`] : []))
  return `# Benchmarks

Written by \`npm run bench\`; \`npm run bench -- --only NAME\` measures one table (${Object.keys(groups).join(', ')}). Medians of up to
five runs (one where a run takes many seconds), ours and the other in turn, on the same pixels and with the same number of threads;
${availableParallelism()} cores, ${cpus()[0]?.model ?? 'unknown processor'}, Node ${process.version}. Single times vary with the machine; the ratios are what counts.

${known.join('\n\n')}
`
}

/** The tables of the page as it stands, by their titles. */
function sectionsOf(text: string): Record<string, string> {
  const parts = text.split(/^## /m).slice(1)
  return Object.fromEntries(parts.map((part) => [part.slice(0, part.indexOf('\n')).trim(), part.slice(part.indexOf('\n')).trim()]))
}

function table(rows: readonly Row[]): string {
  const remarks = rows.flatMap(({ work, remark }) => (remark ? [`- ${work}: ${remark}.`] : [])).join('\n')
  const lines = rows.map(line).join('\n')
  return `${['| work | ours | other | ratio | memory | to reach | reached |', '| --- | --- | --- | --- | --- | --- | --- |', lines].join(
    '\n',
  )}${remarks ? `\n\n${remarks}` : ''}`
}

function line({ work, ours, other, memory, reach, within }: Row): string {
  const compared = other ? `${ms(other.ms)} (${other.name})` : ''
  const ratio = other ? (ours / other.ms).toFixed(2) : ''
  const held = memory === undefined ? '' : `${(memory / 1e9).toFixed(2)} GB`
  return `| ${work} | ${ms(ours)} | ${compared} | ${ratio} | ${held} | ${reach ?? ''} | ${within === undefined ? '' : within ? 'yes' : 'no'} |`
}

function ms(value: number): string {
  return value >= 1000 ? `${(value / 1000).toFixed(2)} s` : `${value.toFixed(value < 10 ? 1 : 0)} ms`
}
