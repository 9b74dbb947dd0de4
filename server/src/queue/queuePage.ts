import type { Found } from './queueRoutes'
import type { QueueStatus } from './queueStatus'

const escaped: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }
const text = (value: string): string => value.replace(/[&<>"]/g, (sign) => escaped[sign] ?? sign)

const style = `
body { margin: 0; background: #e9e8e5; color: #1f2123; font: 15px/1.45 system-ui, sans-serif; font-variant-numeric: tabular-nums }
main { max-width: 62rem; margin: 0 auto; padding: 40px 24px }
h1 { font-size: 26px; letter-spacing: -0.02em; margin: 0 0 4px }
h2 { font-size: 17px; margin: 32px 0 8px }
p { margin: 0; color: #54575a }
dl { display: grid; grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr)); gap: 1px; margin: 24px 0 0; background: #c9c6bf; border: 1px solid #c9c6bf }
dl div { background: #f4f3f1; padding: 12px 16px }
dt { color: #54575a }
dd { margin: 0; font-size: 30px; letter-spacing: -0.02em }
dd.bad { color: #b3361f }
ul { margin: 0; padding: 0; list-style: none; border-top: 1px solid #c9c6bf }
li { padding: 8px 0; border-bottom: 1px solid #c9c6bf; overflow-wrap: anywhere }
li span { display: block; color: #54575a }
`

/** How often the page asks anew, seconds. */
const EVERY = 3

/** The page of a queue: what waits, who works, what failed. It has no scripts, and nothing to press. @param nonce of its style */
export function queuePage({ status, problem }: Found, nonce: string): string {
  return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<meta http-equiv="refresh" content="${EVERY}">
<title>Welkinar: photos in the queue</title>
<style nonce="${nonce}">${style}</style>
<main>
<h1>Photos in the queue</h1>
${status ? inNumbers(status) : `<p role="status">${text(problem)}</p>`}
</main>
</html>
`
}

function inNumbers({ waiting, active, made, failed, perMinute, workers, failures }: QueueStatus): string {
  const numbers = [
    ['Waiting', waiting],
    ['Worked on', active],
    ['Done', made],
    ['Failed', failed],
    ['In the last minute', perMinute],
  ] as const
  const cells = numbers.map(([name, value]) => {
    const bad = name === 'Failed' && value > 0 ? ' class="bad"' : ''
    return `<div><dt>${name}</dt><dd${bad}>${value}</dd></div>`
  })
  const left = perMinute > 0 && waiting > 0 ? ` At this rate the rest takes ${inMinutes(waiting / perMinute)}.` : ''
  const who =
    workers.length === 0
      ? 'No worker takes photos now; “welkinar worker” begins one.'
      : `${workers.length} ${workers.length === 1 ? 'worker takes' : 'workers take'} photos.`
  return `<p>${who}${left}</p>
<dl>${cells.join('')}</dl>
${list('Workers', workers.map(text))}
${list(
  'Failed last',
  failures.map(({ photo, words }) => `${text(photo)}<span>${text(words)}</span>`),
)}`
}

function inMinutes(minutes: number): string {
  return minutes < 1.5 ? 'about a minute' : `about ${Math.round(minutes)} minutes`
}

function list(title: string, items: readonly string[]): string {
  return items.length === 0 ? '' : `<h2>${title}</h2><ul>${items.map((item) => `<li>${item}</li>`).join('')}</ul>`
}
