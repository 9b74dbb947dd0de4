/** Whether code that loads late is gone, since the server has a newer build than the page, or cannot be reached. Browsers say so each in words of its own. */
export function isRenewed(error: unknown): boolean {
  return error instanceof TypeError && /module script|dynamically imported module/i.test(error.message)
}
