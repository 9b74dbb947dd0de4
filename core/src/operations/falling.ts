/** What falls: how it closes on itself, and how far away it is. */
export interface Falling {
  /** The points are the same again this many cells further down and to the right; 0 rows for never. */
  readonly loop: { readonly rows: number; readonly shift: number; readonly phase: number }
  /** Distances in metres between which the points lie. */
  readonly near: number
  readonly far: number
}

/** A loop as the kernels take it. */
export function loopNumbers({ loop }: Partial<Falling>): [rows: number, shift: number, phase: number] {
  return loop ? [loop.rows, loop.shift, loop.phase] : [0, 0, 0]
}
