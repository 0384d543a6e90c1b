import { Instead } from '../ui/Instead'
import { format } from 'date-fns'
import { useMemo } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { changesBetween } from '@pasado/core/documents/changes'
import { moments, momentWords, type Moment } from '@pasado/core/record/moments'
import type { ListedVisit } from '@pasado/core/api/day'
import { ChangesView } from '../revisions/ChangesView'
import { loadWhole, revisionAt } from '../revisions/load-revision'
import { PlansCompared } from '../revisions/PlansCompared'
import { reasonWords } from '../visit/frame/reason-words'
import { Button } from '../ui/Button'
import { Waiting } from '../ui/Waiting'
import { useRead, useReading } from '../app/read'
import { useTitle } from '../app/use-title'
import { Heading, Page } from '../ui/Page'
import { Field, Select } from '../ui/Field'

/** A visit at a moment, as an address holds it. */
interface Side {
  visit: string
  moment: Moment
}
const sideText = ({ visit, moment }: Side) => `${visit}.${moment}`
const sideOf = (text: string | null, visits: readonly ListedVisit[]): Side | null => {
  const [visit, moment] = (text ?? '').split('.')
  return visits.some(({ id }) => id === visit) && moments.some((candidate) => candidate === moment)
    ? { visit: visit!, moment: moment as Moment }
    : null
}

/** When it was, and which moment of it. */
const sideWords = ({ visit, moment }: Side, visits: readonly ListedVisit[]) => {
  const chosen = visits.find(({ id }) => id === visit)!
  return `${format(new Date(chosen.sealedAt ?? chosen.plannedAt ?? chosen.openedAt), 'd MMM yyyy')}, ${momentWords[moment]}`
}

/** What is compared at first: the last visit with this one where there are two, else the plan with what was left. */
function usual(visits: readonly ListedVisit[]): [Side, Side] {
  const sealed = visits.filter(({ sealedAt }) => sealedAt !== null)
  const [latest, before] = sealed.length >= 2 ? sealed : visits
  return before
    ? [
        { visit: before.id, moment: 'left' },
        { visit: latest!.id, moment: 'left' }
      ]
    : [
        { visit: latest!.id, moment: 'planned' },
        { visit: latest!.id, moment: 'left' }
      ]
}

/** A visit with its whole logbook. */
const useWhole = (visit = '') => useReading(['visit as a whole', visit], () => loadWhole(visit), { when: visit !== '' })

/** Two revisions of a home side by side: as planned, as found, as left, of one visit or of two. */
export function CompareVisits() {
  const { id = '' } = useParams()
  const [search, setSearch] = useSearchParams()
  const { value: found, problem: noHome } = useRead('GET /homes/:id', { params: { id } })
  useTitle('What changed')
  const sides = useMemo(() => {
    if (!found?.visits.length) return null
    const [a, b] = usual(found.visits)
    return { from: sideOf(search.get('from'), found.visits) ?? a, to: sideOf(search.get('to'), found.visits) ?? b }
  }, [found, search])
  const from = useWhole(sides?.from.visit)
  const to = useWhole(sides?.to.visit)
  const problem = noHome ?? from.problem ?? to.problem
  const compared = useMemo(() => {
    if (!sides || !from.value || !to.value) return null
    const [a, b] = [revisionAt(from.value, sides.from.moment), revisionAt(to.value, sides.to.moment)]
    return { a, b, changes: changesBetween(a, b) }
  }, [sides, from.value, to.value])
  if (problem) return <Instead message={problem} alert to="/homes" back="Back to the homes" />
  if (!found || !sides) return <Waiting message={found ? 'This home has no visit yet.' : 'Loading …'} className="p-6" />
  const choose = (which: 'from' | 'to', value: string) =>
    setSearch({ from: sideText(sides.from), to: sideText(sides.to), [which]: value }, { replace: true })
  return (
    <Page width="wide">
      <Heading>What changed at {found.home.street}</Heading>
      <p className="text-soft">
        {found.home.town} · {found.home.customer} ·{' '}
        <Link className="underline" to={`/homes/${id}`}>
          the home
        </Link>
      </p>
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-3 sm:grid-cols-[minmax(0,1fr)_auto_minmax(0,1fr)] sm:items-end">
        <SideSelect label="From" value={sides.from} visits={found.visits} onChoose={(value) => choose('from', value)} />
        <Button onClick={() => setSearch({ from: sideText(sides.to), to: sideText(sides.from) }, { replace: true })}>
          Exchange
        </Button>
        <SideSelect label="To" value={sides.to} visits={found.visits} onChoose={(value) => choose('to', value)} />
      </div>
      {!compared && (
        <p className="mt-4 text-soft" role="status">
          Comparing …
        </p>
      )}
      {compared && (
        <div className="mt-4">
          <PlansCompared
            before={compared.a.record}
            after={compared.b.record}
            labels={[sideWords(sides.from, found.visits), sideWords(sides.to, found.visits)]}
          />
        </div>
      )}
      {compared && (
        <div className="mt-4">
          <ChangesView changes={compared.changes} />
        </div>
      )}
    </Page>
  )
}

function SideSelect({
  label,
  value,
  visits,
  onChoose
}: {
  label: string
  value: Side
  visits: readonly ListedVisit[]
  onChoose: (value: string) => void
}) {
  return (
    <Field label={label} className="min-w-0">
      <Select value={sideText(value)} onChange={(event) => onChoose(event.target.value)}>
        {visits.map((visit) => (
          <optgroup
            key={visit.id}
            label={`${format(new Date(visit.sealedAt ?? visit.plannedAt ?? visit.openedAt), 'd MMM yyyy')}, ${visit.summary.reason ? reasonWords[visit.summary.reason as keyof typeof reasonWords] : 'visit'}${visit.sealedAt ? '' : ', not sealed'}`}
          >
            {moments.map((moment) => (
              <option key={moment} value={sideText({ visit: visit.id, moment })}>
                {sideWords({ visit: visit.id, moment }, visits)}
              </option>
            ))}
          </optgroup>
        ))}
      </Select>
    </Field>
  )
}
