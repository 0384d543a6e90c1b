import { useEffect, useState } from 'react'

/** A value that follows another once that has stood still for a while: what is typed is not asked for letter by letter. */
export function useLater<T>(value: T, pauseMs: number): T {
  const [later, setLater] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setLater(value), pauseMs)
    return () => clearTimeout(timer)
  }, [value, pauseMs])
  return later
}
