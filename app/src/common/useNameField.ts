import { useState, type ChangeEvent, type KeyboardEvent } from 'react'

interface NameFieldOptions {
  readonly longest?: number
  /** Whether nothing may be taken too: what is named has a word of its own then. */
  readonly mayBeEmpty?: boolean
}

/** A field for a name: it may be empty while it is typed; Enter or leaving takes what is there, Escape drops it. */
export function useNameField(name: string, onRename: (name: string) => void, { longest = 80, mayBeEmpty = false }: NameFieldOptions = {}) {
  const [typed, setTyped] = useState<string>()
  const take = (): void => {
    const next = typed?.trim().slice(0, longest)
    if (next !== undefined && next !== name && (next || mayBeEmpty)) onRename(next)
    setTyped(undefined)
  }
  return {
    value: typed ?? name,
    onChange: (event: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => setTyped(event.target.value),
    onBlur: take,
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === 'Enter') take()
      if (event.key === 'Escape') setTyped(undefined)
    },
  }
}
