import { Link, useParams } from 'react-router'
import { VisitLine } from '../day/VisitLine'
import { HomeNow } from './HomeNow'
import type { AnswerOf } from '@pasado/core/api/all'
import { useRead } from '../app/read'
import { Loaded } from '../ui/Loaded'
import { Heading, Page } from '../ui/Page'
import { List } from '../ui/List'

/** A home: who lives there, what stands there now, and every visit, newest first. */
export function Home() {
  const { id } = useParams()
  const read = useRead('GET /homes/:id', { params: { id: id! } }, { otherwise: 'The home could not be loaded.' })
  return (
    <Loaded read={read} waiting="Loading the home …" to="/homes" back="Back to the homes">
      {(found) => <Shown found={found} />}
    </Loaded>
  )
}

function Shown({ found }: { found: AnswerOf<'GET /homes/:id'> }) {
  return (
    <Page title={found.home.street} width="wide">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <Heading>{found.home.street}</Heading>
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
      <List className="paper mt-1">
        {found.visits.map((visit) => (
          <VisitLine key={visit.id} visit={visit} atHome />
        ))}
      </List>
    </Page>
  )
}
