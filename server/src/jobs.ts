import { UserProblem } from '@welkinar/core'
import { createNodePool } from './nodePool'
import { FileMaker } from './runs/makeFiles'
import type { Answer, Asked } from './runs/jobProcess'
import { leaveNothingHalf, removeUnfinished } from './stores/outputFile'

// A process that makes the files of jobs, one job after another: what ends it does not end whoever hands them in.

const { threads, memory } = JSON.parse(process.argv[2] ?? '{}') as { threads?: number; memory?: number }
leaveNothingHalf()
process.on('disconnect', () => {
  removeUnfinished()
  process.exit(0)
})
const maker = new FileMaker(await createNodePool(threads, memory === undefined ? {} : { mostMemory: memory }))
process.on('message', ({ job }: Asked) => {
  void maker.make(job).then(
    (results) => answer({ results }),
    (error: unknown) =>
      answer({
        problem:
          error instanceof UserProblem ? error.message : `Something went wrong: ${error instanceof Error ? error.message : String(error)}`,
      }),
  )
})
answer({ ready: true })

function answer(what: Answer): void {
  process.send?.(what)
}
