// A drag is one gesture until the pointer is lifted; presses of keys are one as long as they follow each other closely.

const PAUSE_MS = 1000

let end: (() => void) | undefined
let timer: ReturnType<typeof setTimeout> | undefined
let pointerDown = false

/** Calls `ends` when the gesture that is going on is over. */
export function endGestureLater(ends: () => void): void {
  end = ends
  clearTimeout(timer)
  if (!pointerDown) timer = setTimeout(over, PAUSE_MS)
}

function over(): void {
  clearTimeout(timer)
  const ended = end
  end = undefined
  ended?.()
}

/** Watches the pointer of the page, from its start on. */
export function watchGestures(): void {
  addEventListener('pointerdown', () => (pointerDown = true), true)
  for (const event of ['pointerup', 'pointercancel', 'blur'] as const) {
    addEventListener(event, () => {
      pointerDown = false
      over()
    })
  }
}
