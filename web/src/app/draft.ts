import { useState } from 'react'

const PREFIX = 'pasado-draft '

/** What is half typed, kept for this tab of the browser until it is sent: neither a reload nor another tab of the page loses it. Never a secret. */
function read<T>(key: string, otherwise: T): T {
  try {
    const kept = sessionStorage.getItem(PREFIX + key)
    return kept === null ? otherwise : (JSON.parse(kept) as T)
  } catch {
    return otherwise
  }
}

function keep(key: string, value: unknown, otherwise: unknown): void {
  try {
    if (JSON.stringify(value) === JSON.stringify(otherwise)) sessionStorage.removeItem(PREFIX + key)
    else sessionStorage.setItem(PREFIX + key, JSON.stringify(value))
  } catch {
    /* Where the browser keeps nothing, what is typed lives as long as the page. */
  }
}

/**
 * State that outlives the page it is typed on.
 * @param key of what is typed, and where: of which visit, room or rule
 * @param otherwise what it is while nothing is typed; setting it forgets what was kept
 */
export function useDraft<T>(key: string, otherwise: T): [T, (value: T) => void] {
  const [held, setHeld] = useState(() => ({ key, value: read(key, otherwise) }))
  // Another place to type into has its own draft.
  const here = held.key === key ? held : { key, value: read(key, otherwise) }
  if (here !== held) setHeld(here)
  const set = (value: T) => {
    keep(key, value, otherwise)
    setHeld({ key, value })
  }
  return [here.value, set]
}

/** Reads and keeps a draft without a component's state: for forms that hold their own. */
export const draftOf = { read, keep }

/** Forgets what was half typed: whoever logs in next does not find it. */
export function forgetDrafts(): void {
  try {
    for (const key of Object.keys(sessionStorage)) if (key.startsWith(PREFIX)) sessionStorage.removeItem(key)
  } catch {
    /* nothing is kept here */
  }
}
