import { useEffect, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import type { ListedHome } from '@pasado/core/formats/listed-home'
import { ApiProblem, ask } from '../app/api'

/** A home that was found, and by what. */
type FoundHome = ListedHome & { foundBy?: string[] }

const PAUSE_MS = 200
const foundWords: Record<string, string> = { customer: 'name', street: 'street', town: 'town', serial: 'serial', mac: 'MAC address' }

/** Homes: every home, found by name, street, serial or MAC address. */
export function Homes() {
  const [search, setSearch] = useSearchParams()
  const wanted = search.get('q') ?? ''
  const [homes, setHomes] = useState<FoundHome[] | null>(null)
  const [more, setMore] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  useEffect(() => { document.title = 'Homes · Pasado' }, [])
  useEffect(() => {
    let left = false
    const timer = setTimeout(() => {
      ask<{ homes: FoundHome[] }>('GET', `/homes${wanted ? `?q=${encodeURIComponent(wanted)}` : ''}`).then((found) => {
        if (left) return
        setHomes(found.homes)
        setMore(!wanted && found.homes.length === 50)
        setProblem(null)
      }, (error: unknown) => { if (!left) setProblem(error instanceof ApiProblem ? error.document.title : 'The homes could not be loaded.') })
    }, PAUSE_MS)
    return () => { left = true; clearTimeout(timer) }
  }, [wanted])
  const loadMore = async () => {
    const last = homes!.at(-1)!
    const next = await ask<{ homes: FoundHome[] }>('GET', `/homes?afterStreet=${encodeURIComponent(last.street)}&afterId=${last.id}`)
    setHomes([...homes!, ...next.homes])
    setMore(next.homes.length === 50)
  }
  return (
    <main className="mx-auto max-w-5xl p-4 lg:p-6">
      <h1 className="text-2xl">Homes</h1>
      <div className="mt-3">
        <label className="label" htmlFor="wanted">Find a home</label>
        <input id="wanted" type="search" className="box mt-1" autoFocus placeholder="name, street, serial or MAC address" value={wanted} onChange={(event) => setSearch(event.target.value ? { q: event.target.value } : {}, { replace: true })} />
      </div>
      {problem && <p role="alert" className="mt-3 font-bold">{problem}</p>}
      {homes === null && !problem && <p className="mt-3 text-soft" role="status">Looking …</p>}
      {homes && homes.length > 0 && (
        <ul className="paper mt-4 divide-y divide-rule" aria-label="Homes found">
          {homes.map((home) => (
            <li key={home.id}>
              <Link to={`/homes/${home.id}`} className="flex min-h-14 flex-wrap items-center justify-between gap-x-6 px-4 py-2 hover:bg-well">
                <span><b>{home.street}</b> <span className="text-soft">{home.town}</span></span>
                <span className="text-soft">{home.customer}{home.foundBy ? ` · by ${home.foundBy.map((what) => foundWords[what]).join(', ')}` : ''}</span>
              </Link>
            </li>
          ))}
        </ul>
      )}
      {homes?.length === 0 && <p className="mt-4">{wanted ? 'No home is found by that. Try the first letters of the name or street, or a serial without its hyphens.' : 'No home yet. Open the first visit from Day.'}</p>}
      {more && <p className="mt-3"><button type="button" className="btn" onClick={() => void loadMore()}>More homes</button></p>}
    </main>
  )
}
