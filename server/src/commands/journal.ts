import { appendFile, readFile } from 'node:fs/promises'
import { UserProblem } from '@welkinar/core'

/** A file that a run has made. */
export interface Made {
  /** Its name in the folder of the run. */
  readonly out: string
  /** The photo that it was made of, as it was found. */
  readonly photo: string
  /** Stands for all that it depends on: photo, recipe, pictures, options, version. */
  readonly key: string
  /** SHA-256 of the file. */
  readonly file: string
}

/** What a folder says of the runs that wrote to it: a line of JSON for each file that was made, the last one of a name counts. A line that was torn when a run ended is none. */
export class Journal {
  private readonly made = new Map<string, Made>()

  private constructor(private readonly path: string) {}

  /** @throws UserProblem if it cannot be read */
  static async open(path: string): Promise<Journal> {
    const journal = new Journal(path)
    const text = await readFile(path, 'utf8').catch((error: NodeJS.ErrnoException) => {
      if (error.code === 'ENOENT') return ''
      throw new UserProblem(`“${path}”, where runs note what they have made, cannot be read: ${error.code}.`)
    })
    for (const made of text.split('\n').flatMap(lineOf)) journal.made.set(made.out, made)
    // What comes next is not to stand behind a torn line.
    if (text !== '' && !text.endsWith('\n')) await appendFile(path, '\n')
    return journal
  }

  of(out: string): Made | undefined {
    return this.made.get(out)
  }

  /** The name that a photo has in this folder since an earlier run. */
  nameOf(photo: string, ending: string): string | undefined {
    return [...this.made.values()].find((one) => one.photo === photo && one.out.endsWith(`.${ending}`))?.out
  }

  get names(): readonly string[] {
    return [...this.made.keys()]
  }

  async note(made: Made): Promise<void> {
    this.made.set(made.out, made)
    await appendFile(this.path, `${JSON.stringify(made)}\n`, { flush: true } as object)
  }
}

function lineOf(line: string): Made[] {
  try {
    const value = JSON.parse(line) as Partial<Made> | null
    const texts = [value?.out, value?.photo, value?.key, value?.file]
    return texts.every((text) => typeof text === 'string') ? [value as Made] : []
  } catch {
    return []
  }
}
