import { useEffect, useState } from 'react'

const MINUTE_MS = 60_000

/** The time of now, anew every minute: what is reckoned from it keeps in step with the clock on the wall. */
export function useMinute(): Date {
  const [now, setNow] = useState(() => new Date())
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date()), MINUTE_MS)
    return () => clearInterval(timer)
  }, [])
  return now
}
