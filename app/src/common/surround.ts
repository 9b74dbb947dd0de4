import { keepChoice, keptChoice } from './keptChoice'

/** What lies around the photo, all of it grey, since people judge colour there. */
const surrounds = { 'mid-grey': '#8b8b8b', dark: '#2b2b2b', light: '#d6d6d6' } as const
type Surround = keyof typeof surrounds
const order: readonly Surround[] = ['mid-grey', 'dark', 'light']

/** Where the choice is kept in this browser, and the variable of the style that shows it. */
const KEY = 'welkinar surround'
export const SURROUND = `var(--surround, ${surrounds['mid-grey']})`

function chosen(): Surround {
  const kept = keptChoice(KEY)
  return order.find((one) => one === kept) ?? 'mid-grey'
}

function show(surround: Surround): void {
  document.documentElement.style.setProperty('--surround', surrounds[surround])
}

/** Shows the surround that was chosen last. */
export function showSurround(): void {
  show(chosen())
}

/** Chooses the next surround, and keeps it. */
export function nextSurround(): void {
  const next = order[(order.indexOf(chosen()) + 1) % order.length] ?? 'mid-grey'
  keepChoice(KEY, next)
  show(next)
}
