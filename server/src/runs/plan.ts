import { readFile } from 'node:fs/promises'
import { allColourSpaces, exportFormats, UserProblem } from '@welkinar/core'
import { z } from 'zod'
import { version } from '../../package.json'
import { kernelsPath } from '../modulePaths'
import { sha256 } from '../sha256'
import type { Store } from '../stores/store'

const hash = z.string().regex(/^[0-9a-f]{64}$/)

const planSchema = z.strictObject({
  format: z.literal('welkinar-run'),
  /** Of what computes: another gives other pixels. */
  engine: z.string().max(200),
  /** Of a built-in recipe its name, else the key of the bundle that lies beside. */
  recipe: z.union([z.string().regex(/^built-in:[\w-]{1,100}$/), hash]),
  outputs: z
    .array(
      z.strictObject({
        ending: z.string().regex(/^[a-z0-9]{1,8}$/),
        format: z.enum(exportFormats),
        bits: z.union([z.literal(8), z.literal(16)]),
      }),
    )
    .min(1)
    .max(20),
  scale: z.number().min(0.001).max(1),
  quality: z.number().min(1).max(100),
  colours: z.enum(allColourSpaces),
  place: z.enum(['keep', 'drop']),
  reading: z.enum(['yes', 'no']),
  reduce: z.boolean(),
  overwrite: z.boolean(),
})

/** What all files of a run have in common. It lies in the store that is written to, under `runs/`. */
export type Plan = z.infer<typeof planSchema>

const jobSchema = z.strictObject({
  run: z.string().regex(/^[0-9a-f]{16}$/),
  index: z.int().min(0),
  store: z.string().min(1).max(4096),
  photo: z.string().min(1).max(8192),
  /** Of the files that are made, one for each output of the plan. */
  names: z.array(z.string().min(1).max(1024).refine(staysInside)).min(1).max(20),
})

/** One photo of a run. */
export type Job = z.infer<typeof jobSchema>

/** How it went with one file. */
export interface FileResult {
  readonly photo: string
  readonly out: string
  readonly what: 'made' | 'unchanged' | 'failed'
  /** Why not, or what else is to be said. */
  readonly words: readonly string[]
}

/** What a queue carries of a job: all of it, or, if that were more than a kilobyte, where it lies. */
export type Carried = Job | Pick<Job, 'run' | 'index' | 'store'>

/** Most that a queue carries of a job, bytes. */
const MOST_CARRIED = 1024

let known: Promise<string> | undefined

/** Names what computes here: version and kernels. */
export function engine(): Promise<string> {
  known ??= readFile(kernelsPath()).then((kernels) => `${version}-${sha256(kernels).slice(0, 12)}`)
  return known
}

const planPath = (run: string): string => `runs/${run}.json`
const jobPath = ({ run, index }: Pick<Job, 'run' | 'index'>): string => `runs/${run}/${index}.json`

/** Where the recipe of a plan lies in its store; undefined for a built-in one. */
export function bundlePath({ recipe }: Pick<Plan, 'recipe'>): string | undefined {
  return recipe.startsWith('built-in:') ? undefined : `runs/${recipe}.welkinar`
}

/** Puts a plan where workers find it. */
export async function storePlan(store: Store, run: string, plan: Plan): Promise<void> {
  await put(store, planPath(run), plan)
}

/** @throws UserProblem if there is no such plan, or it is none, or another engine is wanted */
export async function readPlan(store: Store, run: string): Promise<Plan> {
  const path = planPath(run)
  const plan = checked(planSchema, await store.read(path), `${store.address}/${path}`)
  const here = await engine()
  if (plan.engine !== here) throw new UserProblem(`The run was planned by Welkinar ${plan.engine}; this is ${here}.`)
  return plan
}

/** A job as a queue carries it, at most a kilobyte. */
export async function carried(store: Store, job: Job): Promise<Carried> {
  if (Buffer.byteLength(JSON.stringify(job)) <= MOST_CARRIED) return job
  await put(store, jobPath(job), job)
  const { run, index, store: address } = job
  return { run, index, store: address }
}

/** The job that a queue carries. @throws UserProblem if it is none */
export async function jobOf(store: Store, what: Carried): Promise<Job> {
  if ('photo' in what) return checked(jobSchema, Buffer.from(JSON.stringify(what)), 'The job')
  const path = jobPath(what)
  return checked(jobSchema, await store.read(path), `${store.address}/${path}`)
}

export async function put(store: Store, path: string, value: unknown): Promise<void> {
  const file = await store.begin(path, { overwrite: true })
  await file.finish(new Blob([JSON.stringify(value)], { type: 'application/json' }))
}

function checked<T>(schema: z.ZodType<T>, bytes: Uint8Array, name: string): T {
  try {
    return schema.parse(JSON.parse(new TextDecoder().decode(bytes)))
  } catch {
    throw new UserProblem(`“${name}” is damaged, or of another version.`)
  }
}

/** Whether a path leads to nothing outside of the folder that it begins in. */
function staysInside(path: string): boolean {
  return !/^[/\\]|^[a-z]:|(^|[/\\])\.\.([/\\]|$)/i.test(path)
}
