/** Choices of this browser that are no part of a scene. Where the browser keeps nothing they hold until the page is closed. */
const meanwhile = new Map<string, string>()

/** What was chosen; undefined if nothing was. */
export function keptChoice(name: string): string | undefined {
  try {
    return localStorage.getItem(name) ?? undefined
  } catch {
    return meanwhile.get(name)
  }
}

export function keepChoice(name: string, value: string): void {
  try {
    localStorage.setItem(name, value)
  } catch {
    meanwhile.set(name, value)
  }
}
