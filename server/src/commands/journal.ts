import { appendFile, readFile } from 'node:fs/promises'
import { UserProblem } from '@welkinar/core'

/** A file that a run has made, or was about to put in its place. */
export interface Made {
  /** Its name in the folder of the run. */
  readonly out: string
  /** The photo that it was made of, its path from the folder of the run. */
  readonly photo: string
  /** Stands for all that it depends on: photo, recipe, pictures, options, version. */
  readonly key: string
  /** SHA-256 of the file. */
  readonly file: string
}

/**
 * What a folder says of the runs that wrote to it: a line of JSON for each file, noted before it is put in its place, so that whatever lies there whole is known. A file is that of the line
 * with its hash. A line that was torn when a run ended is none.
 */
export class Journal {
  private readonly made = new Map<string, Made[]>()
  private readonly names = new Map<string, string>()

  private constructor(private readonly path: string) {}

  /** @throws UserProblem if it cannot be read */
  static async open(path: string): Promise<Journal> {
    const journal = new Journal(path)
    const text = await readFile(path, 'utf8').catch((error: NodeJS.ErrnoException) => {
      if (error.code === 'ENOENT') return ''
      throw new UserProblem(`“${path}”, where runs note what they have made, cannot be read: ${error.code}.`)
    })
    text
      .split('\n')
      .flatMap(lineOf)
      .forEach((made) => journal.add(made))
    // What comes next is not to stand behind a torn line.
    if (text !== '' && !text.endsWith('\n')) await appendFile(path, '\n')
    return journal
  }

  /** What was noted of a file that has a name and a hash; undefined for one that no run has made. */
  of(out: string, file: string | undefined): Made | undefined {
    return this.made.get(out)?.findLast((made) => made.file === file)
  }

  /** The name that a file of a photo has in this folder since an earlier run. */
  nameOf(photo: string, ending: string): string | undefined {
    return this.names.get(`${photo} ${ending}`)
  }

  get taken(): readonly string[] {
    return [...this.made.keys()]
  }

  async note(made: Made): Promise<void> {
    this.add(made)
    await appendFile(this.path, `${JSON.stringify(made)}\n`, { flush: true })
  }

  private add(made: Made): void {
    const { out, photo } = made
    this.made.set(out, [...(this.made.get(out) ?? []), made])
    this.names.set(`${photo} ${out.slice(out.lastIndexOf('.') + 1)}`, out)
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
