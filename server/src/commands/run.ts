import { UserProblem } from '@welkinar/core'
import { Command, CommanderError } from 'commander'
import { version } from '../../package.json'
import { renderBatch } from './batch'
import { CallProblem } from '../callProblem'
import { renderMotion } from './motion'
import type { WorkerTask } from './worker'
import { listRecipes } from '../runs/recipeInput'
import { renderFile } from '../runs/renderFile'
import { batchOf, motionOf, taskOf, withBatchOptions, withMotionOptions, withRenderOptions, withWorkerOptions } from './renderOptions'

const [DONE, WORK, CALL] = [0, 1, 2] as const

/** How a call ended: with 0; with 1 if the work could not be done, with 2 if the call could not be carried out as it was given, and with what to say on one line. */
interface Ended {
  readonly code: typeof DONE | typeof WORK | typeof CALL
  readonly message?: string
}

/** Carries out a call of the command line. @param args behind the name of the program */
export async function run(args: readonly string[]): Promise<Ended> {
  try {
    await program().parseAsync(args, { from: 'user' })
    return { code: DONE }
  } catch (error) {
    return endedBy(error)
  }
}

function program(): Command {
  const whole = quiet(new Command('welkinar'))
    .description('Puts weather, sky and light into photographs.')
    .version(version, '--version', 'say the version')
  withRenderOptions(quiet(whole.command('render')))
    .description('Lays a recipe on a photo and writes the picture: the same pixels as the application.')
    .action((options: Parameters<typeof taskOf>[0]) => renderFile(taskOf(options)))
  withBatchOptions(quiet(whole.command('batch')))
    .description('Lays a recipe on many photos; what was made before and is unchanged is not made again.')
    .action((options: Parameters<typeof batchOf>[0]) => renderBatch(batchOf(options)))
  withMotionOptions(quiet(whole.command('motion')))
    .description('Writes what moves as it comes round, as one PNG that moves or as frames.')
    .action((options: Parameters<typeof motionOf>[0]) => renderMotion(motionOf(options)))
  withWorkerOptions(quiet(whole.command('worker')))
    .description('Makes the files that “batch --redis” hands in, on this machine, until it is ended.')
    .action(async (options: WorkerTask) => {
      // The queue is loaded where it is wanted.
      const { runWorker } = await import('./worker')
      await runWorker(options)
    })
  quiet(whole.command('recipes'))
    .description('Lists the built-in recipes.')
    .action(() => console.log(listRecipes()))
  return whole
}

/** An error is thrown, and said by whoever catches it. */
function quiet(command: Command): Command {
  return command
    .helpOption('--help', 'say what there is')
    .helpCommand(false)
    .showSuggestionAfterError(false)
    .allowExcessArguments(false)
    .exitOverride()
    .configureOutput({ writeErr: () => undefined })
}

function endedBy(error: unknown): Ended {
  if (error instanceof CommanderError) {
    if (error.exitCode === 0) return { code: DONE }
    const isEmpty = error.code === 'commander.help'
    return { code: CALL, message: isEmpty ? 'Say what to do; welkinar --help tells what there is.' : sentence(error.message) }
  }
  const text = error instanceof Error ? error.message : String(error)
  if (!(error instanceof UserProblem)) return { code: WORK, message: `Something went wrong: ${text.split('\n')[0]}` }
  return { code: error instanceof CallProblem ? CALL : WORK, message: text }
}

function sentence(text: string): string {
  const bare = text
    .replace(/^error: /, '')
    .replaceAll('\n', ' ')
    .trim()
  const ended = /[.!?]$/.test(bare) ? bare : `${bare}.`
  return `${ended.charAt(0).toUpperCase()}${ended.slice(1)} --help tells what there is.`
}
