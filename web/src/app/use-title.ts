import { useEffect } from 'react'

/** Names the page in the browser's title; null as long as its name is not known. */
export function useTitle(title: string | null): void {
  useEffect(() => {
    if (title !== null) document.title = title === '' ? 'Pasado' : `${title} · Pasado`
  }, [title])
}
