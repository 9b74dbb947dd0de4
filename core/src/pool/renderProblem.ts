import type { Failure } from './lane'

const words: Record<Failure, string> = {
  memory: 'there is not enough memory for it at this size',
  stuck: 'it takes too long at this size',
  ended: 'the thread that computed it ended',
  error: 'something went wrong in it',
  'given up': 'it was given up',
  'too costly': '',
}

/** A picture cannot be computed. */
export class RenderProblem extends Error {
  override readonly name = 'RenderProblem'

  /** @param nodeKey the node that was being computed, if that is known; `effectOfNode` tells whose it is */
  constructor(
    readonly failure: Failure,
    readonly nodeKey: string | undefined,
    readonly detail: string,
  ) {
    super(detail)
  }

  /** A sentence for the person. @param what what could not be computed */
  inWords(what: string): string {
    if (this.failure === 'too costly') return `${what} is not computed: ${this.detail}.`
    const more = this.failure === 'error' ? ` (${this.detail})` : ''
    return `${what} could not be computed: ${words[this.failure]}${more}.`
  }
}
