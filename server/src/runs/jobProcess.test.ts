import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { partName } from '../stores/outputFile'
import { JobProcess, ProcessDied } from './jobProcess'

let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'welkinar-job-'))
})
afterAll(() => rm(folder, { recursive: true }))

it('leaves nothing half of a job that ends its process, and nothing of others is touched', async () => {
  const script = join(folder, 'dies.mjs')
  const part = join(folder, partName('a.png', 0))
  await writeFile(
    script,
    `import { writeFileSync } from 'node:fs'
    process.on('message', () => {
      writeFileSync(${JSON.stringify(part)}.replace('-0.part', '-' + process.pid + '.part'), 'half')
      process.kill(process.pid, 'SIGKILL')
    })
    process.send({ ready: true })`,
  )
  const alive = partName('b.png', process.pid)
  await writeFile(join(folder, alive), 'still written')
  const job = { run: '0123456789abcdef', index: 0, store: folder, photo: 'in/a.png', names: ['a.png'] }
  const jobProcess = new JobProcess({}, script)
  // The second time another process takes it.
  for (let i = 0; i < 2; i++) await expect(jobProcess.run(job)).rejects.toBeInstanceOf(ProcessDied)
  expect((await readdir(folder)).toSorted()).toEqual([alive, 'dies.mjs'].toSorted())
})
