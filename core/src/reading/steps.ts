/** Work that can be left between two steps of it, and gone on with; in the end it gives what it found. */
export type Steps<T> = Generator<undefined, T, undefined>

/** All steps without a stop. */
export function allAtOnce<T>(steps: Steps<T>): T {
  for (;;) {
    const { done, value } = steps.next()
    if (done) return value
  }
}
