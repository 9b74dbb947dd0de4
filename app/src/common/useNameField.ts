import { useState, type ChangeEvent, type KeyboardEvent } from 'react'

/** A field for a name: it may be empty while it is typed; Enter or leaving takes what is there, Escape drops it. A name that is empty is not taken. */
export function useNameField(name: string, onRename: (name: string) => void, longest = 80) {
  const [typed, setTyped] = useState<string>()
  const take = (): void => {
    const next = typed?.trim().slice(0, longest)
    if (next && next !== name) onRename(next)
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
