import { z } from 'zod'
import { sha256 } from '../sha256'
import type { Store } from '../stores/store'
import { put } from './plan'

const madeSchema = z.object({ out: z.string(), photo: z.string(), key: z.string(), file: z.string() })

/** A file that a run has made, or was about to put in its place. */
export type Made = z.infer<typeof madeSchema>

const NOTES = 'runs/notes'
/** The journal of earlier versions: a line for each file. */
const LINES = 'run.jsonl'
/** How much is remembered of one name. */
const MOST_OF_ONE = 8
/** Notes that are read at the same time. */
const AT_ONCE = 32

/**
 * What a store says of the runs that wrote to it: a note for each name, written before the file is put in its place, so that whatever lies there whole is known, whoever has made it. A
 * file is that of the entry with its hash.
 */
export class Notes {
  constructor(private readonly store: Store) {}

  /** What was noted of a file that has a name and a hash; undefined for one that no run has made. */
  async of(out: string, file: string | undefined): Promise<Made | undefined> {
    return (await this.all(notePath(out))).findLast((made) => made.file === file)
  }

  async note(made: Made): Promise<void> {
    const path = notePath(made.out)
    await put(this.store, path, [...(await this.all(path)), made].slice(-MOST_OF_ONE))
  }

  /** The names that runs have given here, by the photo and the ending. */
  async names(): Promise<ReadonlyMap<string, string>> {
    await this.takeOverLines()
    const paths = await this.store.list(NOTES)
    const names = new Map<string, string>()
    for (let at = 0; at < paths.length; at += AT_ONCE) {
      const read = await Promise.all(paths.slice(at, at + AT_ONCE).map((path) => this.all(path)))
      for (const { photo, out } of read.flat()) names.set(nameKey(photo, out.slice(out.lastIndexOf('.') + 1)), out)
    }
    return names
  }

  /** A note that is missing or torn says nothing. */
  private async all(path: string): Promise<readonly Made[]> {
    return this.store.read(path).then(
      (bytes) => entriesOf(new TextDecoder().decode(bytes)),
      () => [],
    )
  }

  private async takeOverLines(): Promise<void> {
    const lines = await this.store.read(LINES).catch(() => undefined)
    if (!lines) return
    for (const made of new TextDecoder()
      .decode(lines)
      .split('\n')
      .flatMap((line) => entriesOf(`[${line}]`))) {
      if (!(await this.of(made.out, made.file))) await this.note(made)
    }
  }
}

/** Under what a name is remembered. */
export function nameKey(photo: string, ending: string): string {
  return `${photo} ${ending}`
}

/** Where the note on a file lies. */
export function notePath(out: string): string {
  return `${NOTES}/${sha256(out).slice(0, 32)}.json`
}

function entriesOf(text: string): readonly Made[] {
  try {
    return z.array(madeSchema).parse(JSON.parse(text))
  } catch {
    return []
  }
}
