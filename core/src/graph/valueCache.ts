import { contains, type Rect } from '../planes/rect'
import { byteSize, type Value } from '../planes/value'

/**
 * How long a value stays when room is needed, the shortest first: what only led to another; the picture up to an effect, of which the next change may want one;
 * a picture that the next change will most likely want, or that was asked for itself; a block that only led to other blocks; what many tiles read.
 */
export const worth = { step: 0, stage: 1, picture: 2, block: 3, manyTiles: 4 } as const
export type Worth = (typeof worth)[keyof typeof worth]

/** By how many times what was missed the budget grows: others will be missed too. */
const GROWTH = 4

/** The part of the budget that pictures keep, whatever many tiles read: with them gone, every effect beneath the one that changes is computed anew. */
const PICTURES_SHARE = 1 / 2

/** What none of so many last pictures on its grid read, or of so many on any grid, belongs to earlier settings or places, and goes before anything that is in use. */
const PICTURES_ON_GRID = 3
const PICTURES_REMEMBERED = 40

/** A picture that tiles were computed for: its grid, how many there were on that grid before it, and how many on any. */
interface PictureNumber {
  readonly grid: string
  readonly onGrid: number
  readonly onAny: number
}

interface Entry {
  readonly value: Value
  /** What it is known by; nothing for a value that is used once. */
  readonly key: string | undefined
  worth: Worth
  /** What it took to compute it, and the level below which it goes: both against its bytes. */
  readonly cost: number
  credit: number
  /** The last picture that read it. */
  picture: PictureNumber
  /** Readers that hold it; while there are any it is not freed. */
  readers: number
}

/** Values of one worth, oldest first, and the bytes they take. */
class Age extends Set<Entry> {
  bytes = 0
  /** The credit of what went last. */
  level = 0

  override add(entry: Entry): this {
    if (!this.has(entry)) this.bytes += byteSize(entry.value)
    return super.add(entry)
  }

  override delete(entry: Entry): boolean {
    const was = super.delete(entry)
    if (was) this.bytes -= byteSize(entry.value)
    return was
  }
}

/** Bytes that results may take. */
export interface MemoryBudget {
  readonly usual: number
  /** As far as it grows where the usual does not hold what many tiles read, which would be computed anew for each. */
  readonly most: number
  /** Less than the usual for small photos, where it is given: so much, and so much for each pixel of the largest one. */
  readonly small?: { readonly least: number; readonly perPixel: number }
}

/** Of what had to go so many places are remembered. */
const MOST_MISSED = 5000

/**
 * Results by what they are and the rectangle they cover, within a budget of bytes. A value that is held stays whatever the budget; of the others the least
 * worth goes first, but for a share of the budget that pictures keep; among equals the least recently used; as soon as the budget is exceeded, in the middle
 * of a tile too. Of what many tiles read goes what took the least to compute for its size, the longer ago it was read the sooner (GreedyDual-Size, Cao and Irani 1997): all of it is read
 * again in the same order for the next tile, so that by age alone everything would go just before it is needed as soon as a little of it does not fit.
 */
export class ValueCache {
  private readonly byKey = new Map<string, Set<Entry>>()
  /** What has a key, oldest first, by worth. */
  private readonly ages = [new Age(), new Age(), new Age(), new Age(), new Age()] as const
  private readonly held = new Map<Value, Entry>()
  private bytes = 0
  /** The last picture on each grid: what it is known by, and its number. */
  private readonly pictures = new Map<string, { readonly root: string; readonly onGrid: number }>()
  private picture: PictureNumber = { grid: '', onGrid: 0, onAny: 0 }
  /** What many tiles read and had to go. */
  private readonly missed = new Set<string>()
  private usual: number
  private budgetBytes: number

  constructor(
    private readonly budget: MemoryBudget,
    private readonly release: (address: number) => void,
  ) {
    this.usual = budget.usual
    this.budgetBytes = budget.usual
  }

  /** A value of a key that covers a rectangle, held for the caller until `letGo`. It may cover more. */
  find(key: string, rect: Rect, least: Worth = worth.step): Value | undefined {
    for (const entry of this.byKey.get(key) ?? []) {
      if (!contains(entry.value.rect, rect)) continue
      this.ages[entry.worth].delete(entry)
      if (least > entry.worth) entry.worth = least
      entry.picture = this.picture
      entry.credit = this.ages[entry.worth].level + entry.cost
      this.ages[entry.worth].add(entry)
      return this.hold(entry)
    }
    return undefined
  }

  /**
   * Keeps a value, and holds it for the caller until `letGo`. Without a key it is freed then.
   * @param work pixels that were computed for it
   */
  keep(key: string | undefined, value: Value, own: Worth = worth.step, work = 0): Value {
    const cost = work / byteSize(value)
    const entry: Entry = { key, value, worth: own, cost, credit: this.ages[own].level + cost, picture: this.picture, readers: 0 }
    this.bytes += byteSize(value)
    // What many tiles read is kept if it can be, however large it is by itself.
    if (own >= worth.block && (this.missed.delete(placeOf(entry)) || 2 * byteSize(value) > this.budgetBytes)) {
      this.budgetBytes = Math.min(this.budget.most, this.budgetBytes + GROWTH * byteSize(value))
    }
    if (key !== undefined) {
      const known = this.byKey.get(key)
      if (known) known.add(entry)
      else this.byKey.set(key, new Set([entry]))
      this.ages[own].add(entry)
    }
    this.hold(entry)
    this.trim()
    return value
  }

  /** Holds a value, which is held already, once more. */
  again(value: Value): Value {
    const entry = this.held.get(value)
    if (!entry) throw new Error('The value is not held.')
    return this.hold(entry)
  }

  letGo(value: Value): void {
    const entry = this.held.get(value)
    if (!entry) throw new Error('The value is not held.')
    if (--entry.readers > 0) return
    this.held.delete(value)
    if (entry.key === undefined) this.free(entry)
  }

  /** Nobody holds anything any more: an evaluation ended before its end. */
  letAllGo(): void {
    for (const entry of this.held.values()) {
      entry.readers = 0
      if (entry.key === undefined) this.free(entry)
    }
    this.held.clear()
    this.trim()
  }

  /** Begins with the budget for a photo of so many pixels. */
  fitTo(pixels: number): void {
    const { usual, small } = this.budget
    this.usual = small ? Math.min(usual, small.least + small.perPixel * pixels) : usual
    this.budgetBytes = this.usual
  }

  /** What is computed and read from now on is for this picture. @param root what it is known by */
  beginPicture(root: string, grid: string): void {
    const last = this.pictures.get(grid)
    const isNew = last?.root !== root
    const onGrid = (last?.onGrid ?? 0) + (isNew ? 1 : 0)
    if (isNew) this.pictures.set(grid, { root, onGrid })
    this.picture = { grid, onGrid, onAny: this.picture.onAny + (isNew ? 1 : 0) }
  }

  /** Frees all that nobody holds, and begins with the usual budget again. */
  clear(): void {
    this.budgetBytes = 0
    this.trim()
    this.budgetBytes = this.usual
    this.missed.clear()
    this.pictures.clear()
  }

  /** Frees what nobody holds until the budget holds: of pictures at first only what goes over their share, and the rest when nothing else is left. */
  trim(): void {
    const pictures = this.ages[worth.picture]
    this.freeOldest(this.ages[worth.step])
    this.freeOldest(this.ages[worth.stage])
    this.freeLongGone()
    this.freeOldest(pictures, PICTURES_SHARE * this.budgetBytes)
    this.freeCheapest(worth.block)
    this.freeCheapest(worth.manyTiles)
    this.freeOldest(pictures)
  }

  /** Frees what the last pictures did not read, the longer ago it was read the sooner, as long as the budget is exceeded. None of it is missed. */
  private freeLongGone(): void {
    if (this.bytes <= this.budgetBytes) return
    const gone = [worth.picture, worth.block, worth.manyTiles]
      .flatMap((own) => [...this.ages[own]])
      .filter((entry) => entry.readers === 0 && this.isLongGone(entry))
      .sort((a, b) => a.picture.onAny - b.picture.onAny)
    for (const entry of gone) {
      if (this.bytes <= this.budgetBytes) return
      this.forget(entry, false)
    }
  }

  private isLongGone({ picture: { grid, onGrid, onAny } }: Entry): boolean {
    const last = this.pictures.get(grid)?.onGrid ?? onGrid
    return last - onGrid >= PICTURES_ON_GRID || this.picture.onAny - onAny > PICTURES_REMEMBERED
  }

  /** Frees of an age what nobody holds, as long as the budget is exceeded and the age takes more than `share`. */
  private freeOldest(age: Age, share = 0): void {
    for (const entry of age) {
      if (this.bytes <= this.budgetBytes || age.bytes <= share) return
      if (entry.readers === 0) this.forget(entry)
    }
  }

  /** Frees of blocks what nobody holds, as long as the budget is exceeded. */
  private freeCheapest(own: Worth): void {
    if (this.bytes <= this.budgetBytes) return
    const free = [...this.ages[own]].filter(({ readers }) => readers === 0).sort((a, b) => a.credit - b.credit)
    for (const entry of free) {
      if (this.bytes <= this.budgetBytes) return
      this.ages[own].level = entry.credit
      this.forget(entry)
    }
  }

  /** Bytes that values take now. */
  get size(): number {
    return this.bytes
  }

  private hold(entry: Entry): Value {
    entry.readers++
    this.held.set(entry.value, entry)
    return entry.value
  }

  /** @param isMissed whether it had to go, and may be wanted again */
  private forget(entry: Entry, isMissed = true): void {
    this.ages[entry.worth].delete(entry)
    if (isMissed && entry.worth >= worth.block) this.miss(placeOf(entry))
    const known = entry.key === undefined ? undefined : this.byKey.get(entry.key)
    known?.delete(entry)
    if (known?.size === 0 && entry.key !== undefined) this.byKey.delete(entry.key)
    this.free(entry)
  }

  /** Notes what had to go. Under pressure that never ends: of what is noted the oldest goes. */
  private miss(place: string): void {
    this.missed.add(place)
    if (this.missed.size > MOST_MISSED) for (const oldest of this.missed) return void this.missed.delete(oldest)
  }

  private free({ value }: Entry): void {
    this.bytes -= byteSize(value)
    value.planes.forEach(this.release)
  }
}

function placeOf({ key, value: { rect } }: Entry): string {
  return `${key} ${rect.x} ${rect.y} ${rect.width} ${rect.height}`
}
