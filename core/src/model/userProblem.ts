/** Something that the person can do something about. The message is shown as it is. */
export class UserProblem extends Error {
  override readonly name = 'UserProblem'
}
