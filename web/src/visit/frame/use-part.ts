import { useEffect } from 'react'
import { useSearchParams } from 'react-router'

/**
 * Which part of a stage is open, as its address tells it: where a place was gone to, the part that holds the place.
 * @param partOf the part that holds a place, `at` as it stands in the address
 */
export function usePart(
  partOf: (at: string | null) => string | null | undefined,
  first: string
): [part: string, go: (part: string) => void] {
  const [search, setSearch] = useSearchParams()
  const asked = partOf(search.get('at'))
  useEffect(() => {
    if (asked && asked !== search.get('part'))
      setSearch(
        (before) => {
          before.set('part', asked)
          return before
        },
        { replace: true }
      )
  }, [asked, search, setSearch])
  const go = (part: string) => setSearch({ part }, { replace: true })
  return [asked ?? search.get('part') ?? first, go]
}
