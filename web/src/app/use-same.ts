import { useState } from 'react'

/** The value as it was when its key last changed: so what depends on it is made anew only then. */
export function useSame<T>(value: T, key: string): T {
  const [kept, setKept] = useState({ value, key })
  if (kept.key === key) return kept.value
  setKept({ value, key })
  return value
}
