import { UserProblem } from '@welkinar/core'

/** The call cannot be carried out as it was given: nothing was begun. */
export class CallProblem extends UserProblem {}
