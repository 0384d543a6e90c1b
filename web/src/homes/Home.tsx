import { Instead } from '../ui/Instead'
import { Waiting } from '../ui/Waiting'
import { useEffect, useState } from 'react'
import { Link, useParams } from 'react-router'
import { ask, failureTitle } from '../app/api'
import { VisitLine } from '../day/VisitLine'
import type { ListedVisit } from '@pasado/core/api/day'
import type { HomeNow as Now } from '@pasado/core/documents/home-now'
import type { ListedHome } from '@pasado/core/api/homes'
import { HomeNow } from './HomeNow'

/** A home: who lives there, what stands there now, and every visit, newest first. */
export function Home() {
  const { id } = useParams()
  const [found, setFound] = useState<{ home: ListedHome; visits: ListedVisit[]; now: Now | null } | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  useEffect(() => {
    void ask('GET /homes/:id', { params: { id: id! } }).then(
      (home) => {
        setFound(home)
        document.title = `${home.home.street} · Pasado`
      },
      (error: unknown) => setProblem(failureTitle(error, 'The home could not be loaded.'))
    )
  }, [id])
  if (problem) return <Instead says={problem} alert to="/homes" back="Back to the homes" />
  if (!found) return <Waiting says="Loading the home …" className="p-6" />
  return (
    <main className="mx-auto max-w-6xl p-4 lg:p-6">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <h1 className="text-2xl">{found.home.street}</h1>
          <p className="text-soft">
            {found.home.town} · {found.home.customer}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          {found.visits.length > 0 && (
            <Link to={`/homes/${found.home.id}/compare`} className="btn">
              What changed
            </Link>
          )}
          <Link to={`/visit/new?home=${found.home.id}`} className="btn btn-plum">
            New visit here
          </Link>
        </div>
      </div>
      {found.now && <HomeNow now={found.now} />}
      <h2 className="mt-5 text-base text-soft">Visits</h2>
      <ul className="paper mt-1 divide-y divide-rule">
        {found.visits.map((visit) => (
          <VisitLine key={visit.id} visit={visit} atHome />
        ))}
      </ul>
    </main>
  )
}
