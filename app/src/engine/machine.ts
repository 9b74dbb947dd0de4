import { numberProblem, type NumberLimits } from '@welkinar/core'
import { keepChoice, keptChoice } from '../common/keptChoice'

/** How much of this machine pictures may be computed with. */
export interface Machine {
  readonly threads: number
  /** Memory for results that the threads keep in common, MB. */
  readonly memory: number
}

const KEY = 'welkinar machine'

/** What can be chosen. */
export const machineLimits: Readonly<Record<keyof Machine, NumberLimits>> = {
  threads: { least: 1, most: 16, whole: true },
  memory: { least: 100, most: 4000, whole: true },
}

/** All cores that the browser names, and memory that a usual machine has to spare. */
export function usualMachine(): Machine {
  return { threads: Math.max(1, Math.min(machineLimits.threads.most, navigator.hardwareConcurrency || 2)), memory: 768 }
}

/** What was chosen in this browser; the usual where nothing was, or what is kept cannot be read. */
export function chosenMachine(): Machine {
  const usual = usualMachine()
  try {
    const { threads, memory } = JSON.parse(keptChoice(KEY) ?? '{}') as Partial<Machine>
    const isSound = [numberProblem(Number(threads), machineLimits.threads), numberProblem(Number(memory), machineLimits.memory)].every(
      (problem) => problem === undefined,
    )
    return isSound ? { threads: Number(threads), memory: Number(memory) } : usual
  } catch {
    return usual
  }
}

export function chooseMachine(machine: Machine): void {
  keepChoice(KEY, JSON.stringify(machine))
}
