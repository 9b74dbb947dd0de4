import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { availableParallelism, cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { browserRows } from './browserRows'
import { jobRows, writePhoto } from './jobRows'
import { kernelRows } from './kernelRows'
import type { Row } from './measure'
import { testPixels } from './photo24'

// Prints one table and writes it to docs/benchmarks.md.

const folder = await mkdtemp(join(tmpdir(), 'welkinar-bench-'))
const pixels = testPixels()
const photo = await writePhoto(folder, pixels)
const rows: Row[] = [...(await kernelRows(pixels)), ...(await jobRows(folder, photo)), ...(await browserRows(photo))]
await rm(folder, { recursive: true })

const text = `# Benchmarks

Written by \`npm run bench\`. Medians of up to five runs (one where a run takes many seconds), ours and the other in turn, on the same pixels and with the
same number of threads; ${availableParallelism()} cores, ${cpus()[0]?.model ?? 'unknown processor'}, Node ${process.version}. Single times vary with
the machine; the ratios are what counts.

| work | ours | other | ratio | to reach | reached |
| --- | --- | --- | --- | --- | --- |
${rows.map(line).join('\n')}

${rows.flatMap(({ work, remark }) => (remark ? [`- ${work}: ${remark}.`] : [])).join('\n')}
`
console.log(text)
await writeFile(fileURLToPath(new URL('../../docs/benchmarks.md', import.meta.url)), text)

function line({ work, ours, other, reach, within }: Row): string {
  const compared = other ? `${ms(other.ms)} (${other.name})` : ''
  const ratio = other ? (ours / other.ms).toFixed(2) : ''
  return `| ${work} | ${ms(ours)} | ${compared} | ${ratio} | ${reach ?? ''} | ${within === undefined ? '' : within ? 'yes' : 'no'} |`
}

function ms(value: number): string {
  return value >= 1000 ? `${(value / 1000).toFixed(2)} s` : `${value.toFixed(value < 10 ? 1 : 0)} ms`
}
