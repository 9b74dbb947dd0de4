/** What a queue is at. */
export interface QueueStatus {
  readonly waiting: number
  readonly active: number
  readonly made: number
  readonly failed: number
  /** Ended in the last whole minute. */
  readonly perMinute: number
  /** Names of the machines and processes that take jobs. */
  readonly workers: readonly string[]
  /** The last ones that failed. */
  readonly failures: readonly { readonly photo: string; readonly words: string }[]
}
