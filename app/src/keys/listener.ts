import { useEffect, useLayoutEffect, useRef } from 'react'
import { strokesOf } from './keymap'
import { strokeOf } from './strokes'

// All keys of the page that are not those of a single control come here. What lies over the view (a menu, a list, a dialog, a text field) suspends it; a tool goes before the view.

/** What a command does with its key. */
export interface KeyBinding {
  /** As in the keymap. */
  readonly id: string
  readonly run?: (() => void) | undefined
  /** It lasts as long as the key is down. */
  readonly hold?: ((down: boolean) => void) | undefined
  /** A key that is held does it again and again. */
  readonly repeats?: boolean | undefined
  /** Also while a text is typed. */
  readonly inTexts?: boolean | undefined
  readonly enabled?: boolean | undefined
}

type Scope = 'tool' | 'view'
interface Layer {
  readonly scope: Scope
  readonly bindings: () => readonly KeyBinding[]
}

const layers: Layer[] = []
/** What is held, by the place of its key: what is written on it may change while it is down. */
const held = new Map<string, (down: boolean) => void>()

/** Puts keys in force while a component is there. Of a tool: before those of the view. */
export function useKeys(bindings: readonly KeyBinding[], scope: Scope = 'view'): void {
  const latest = useRef(bindings)
  useLayoutEffect(() => {
    latest.current = bindings
  })
  useEffect(() => {
    const layer: Layer = { scope, bindings: () => latest.current }
    layers.push(layer)
    return () => {
      layers.splice(layers.indexOf(layer), 1)
      letGo()
    }
  }, [scope])
}

/** Listens to the keys of the page, from its start on. */
export function watchKeys(): void {
  addEventListener('keydown', onKeyDown)
  addEventListener('keyup', ({ code }) => release(code))
  // A key that is lifted in another window is lifted all the same.
  addEventListener('blur', letGo)
  document.addEventListener('visibilitychange', letGo)
}

function onKeyDown(event: KeyboardEvent): void {
  if (event.defaultPrevented) return
  const stroke = strokeOf(event)
  const place = placeOf(event.target)
  if (stroke === undefined || place === 'over' || (place === 'control' && stroke === 'space')) return
  const { binding, scope } = bindingFor(stroke) ?? {}
  // A button that was pressed to take a tool has the focus while the tool is used.
  if (place === 'control' && stroke === 'enter' && scope !== 'tool') return
  if (!binding || binding.enabled === false || (place === 'text' && !binding.inTexts)) return
  event.preventDefault()
  if (event.repeat && !binding.repeats) return
  if (binding.hold) {
    release(event.code)
    held.set(event.code, binding.hold)
    binding.hold(true)
  } else binding.run?.()
}

/** The latest of the tools first, then of the views. */
function bindingFor(stroke: string): { readonly binding: KeyBinding; readonly scope: Scope } | undefined {
  for (const wanted of ['tool', 'view'] as const) {
    for (const { scope, bindings } of layers.toReversed()) {
      if (scope !== wanted) continue
      const binding = bindings().find(({ id }) => strokesOf(id).includes(stroke))
      if (binding) return { binding, scope }
    }
  }
  return undefined
}

function release(code: string): void {
  const hold = held.get(code)
  held.delete(code)
  hold?.(false)
}

function letGo(): void {
  for (const code of [...held.keys()]) release(code)
}

const OVER = '[role=menu], [role=listbox], [role=dialog], [role=alertdialog], .MuiModal-root'

/** What the focus is in: something that lies over the view, a text, a control that takes Space and Enter, or the view. */
function placeOf(target: EventTarget | null): 'over' | 'text' | 'control' | 'view' {
  if (!(target instanceof HTMLElement)) return 'view'
  if (target.closest(OVER)) return 'over'
  if (target.isContentEditable || target instanceof HTMLTextAreaElement) return 'text'
  if (target instanceof HTMLInputElement) return ['range', 'checkbox', 'radio', 'button', 'file'].includes(target.type) ? 'control' : 'text'
  return target.closest('button, a, select, [role=button], [role=slider]') ? 'control' : 'view'
}
