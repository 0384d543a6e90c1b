import { modelKey } from '@pasado/core/catalogue/model'
import { useMemo, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { believe, nextStep, testsFor, undecided, type Observed } from '@pasado/core/work/diagnose/belief'
import { causes, type CauseId } from '@pasado/core/work/diagnose/causes'
import { handOverText } from '@pasado/core/work/diagnose/hand-over'
import { knownAnswers, withKnown } from '@pasado/core/work/diagnose/known'
import {
  mendedId,
  observationOf,
  observations,
  type Observation,
  type ObservationId
} from '@pasado/core/work/diagnose/observations'
import { effects } from '@pasado/core/work/diagnose/table'
import { observeHouse } from '@pasado/core/house/observed'
import { listedRooms } from '@pasado/core/work/prove/rooms'
import { standing, unitName, type FaultSearch, type VisitRecord } from '@pasado/core/record/record'
import { ApiProblem } from '../../../app/api'
import { Sheet } from '../../../ui/Sheet'
import { useMayWrite } from '../../session/facts'
import { useVisit, write } from '../../session/store'
import { openHouse } from './open-house'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'

/** What a search is about. */
export interface Complaint {
  unit?: string | undefined
  room?: string | undefined
}

/** Finding the fault: what is known already, the next thing to look at, the causes and why, and the mend. */
export function FindFault() {
  const record = useVisit((state) => state.record)
  const mayWrite = useMayWrite()
  const searches = Object.values(record.searches ?? {}).sort((a, b) => b.seq - a.seq)
  const open = searches.find(({ found }) => found === null)
  return (
    <div className="flex flex-col gap-4">
      {mayWrite && !open && <Begin record={record} />}
      {!mayWrite && !open && searches.length === 0 && <p>No fault was looked for.</p>}
      {open && <Search key={open.id} search={open} />}
      {searches.filter(({ found }) => found !== null).length > 0 && (
        <section aria-label="Faults found">
          <h3>Found at this visit</h3>
          <ul className="mt-1 divide-y divide-rule border-y border-rule">
            {searches
              .filter(({ found }) => found !== null)
              .map(({ id, about, found }) => (
                <li key={id} className="py-2">
                  <b>{causes.find((one) => one.id === found!.cause)?.name ?? found!.cause}</b>
                  {aboutWords(record, about)}:{' '}
                  {
                    {
                      mended: 'mended, and it works',
                      provider: 'handed over to the provider',
                      maker: 'handed over to the maker',
                      left: 'left as it is'
                    }[found!.end]
                  }
                  .
                </li>
              ))}
          </ul>
        </section>
      )}
    </div>
  )
}

const aboutWords = (record: VisitRecord, { unit, room }: Complaint) => {
  const [named, inRoom] = [unit ? record.units[unit] : undefined, room ? record.rooms?.[room] : undefined]
  return `${named ? `, ${unitName(named)}` : ''}${inRoom ? `, ${inRoom.facts.name ?? 'a room'}` : ''}`
}

function Begin({ record }: { record: VisitRecord }) {
  const units = standing(record.units).filter(({ facts }) => facts.role !== 'modem')
  const [unit, setUnit] = useState(units[0]?.id ?? '')
  const [room, setRoom] = useState('')
  if (units.length === 0) return <p>No unit yet: add them under Kit.</p>
  return (
    <form
      className="paper flex flex-wrap items-end gap-3 p-4"
      aria-label="A new search"
      onSubmit={(event) => {
        event.preventDefault()
        beginSearch({ unit: unit || undefined, room: room || undefined })
      }}
    >
      <label className="label grow basis-40">
        What does not work
        <select className="box mt-1 font-normal" value={unit} onChange={(event) => setUnit(event.target.value)}>
          {units.map((one) => (
            <option key={one.id} value={one.id}>
              {unitName(one)}
            </option>
          ))}
        </select>
      </label>
      <label className="label grow basis-40">
        In which room
        <select className="box mt-1 font-normal" value={room} onChange={(event) => setRoom(event.target.value)}>
          <option value="">everywhere, or not known</option>
          {listedRooms(record).map((one) => (
            <option key={one.id} value={one.id}>
              {one.facts.name ?? 'Room'}
            </option>
          ))}
        </select>
      </label>
      <Button type="submit" kind="main">
        Find the fault
      </Button>
    </form>
  )
}

/** Begins a search. */
export function beginSearch(about: Complaint): void {
  write('fault.search', {
    search: uuidv7(),
    about: { ...(about.unit ? { unit: about.unit } : {}), ...(about.room ? { room: about.room } : {}) }
  })
}

const percent = (share: number) => `${share >= 0.995 ? '99' : share < 0.01 ? 'under 1' : Math.round(share * 100)} %`

function Search({ search }: { search: FaultSearch }) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const policy = useVisit((state) => state.standard.policy)
  const mayWrite = useMayWrite()
  const [why, setWhy] = useState<CauseId | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [sending, setSending] = useState(false)
  const known = useMemo(
    () => knownAnswers(record, catalogue, policy, search.about),
    [record, catalogue, policy, search.about]
  )
  const answered: Observed = useMemo(
    () => Object.fromEntries(Object.entries(search.observed).map(([id, { answer }]) => [id, answer])),
    [search.observed]
  )
  const observed = useMemo(() => withKnown(known, answered), [known, answered])
  const offered = useMemo(() => applicable(record, search.about), [record, search.about])
  const { suspects, odd } = useMemo(() => believe(observed, offered), [observed, offered])
  const step = useMemo(() => nextStep(observed, offered), [observed, offered])
  const others = useMemo(() => testsFor(observed, offered), [observed, offered])
  const [asked, setAsked] = useState<string | null>(null)
  const tell = (observation: string, answer: string | null) => {
    setAsked(null)
    write('fault.observed', { search: search.id, observation, answer })
  }
  const shown = asked ? observationOf(asked)! : step.do === 'test' ? step.test.observation : null
  const mend = !asked && step.do === 'mend' ? step.suspect : null
  const unit = search.about.unit ? record.units[search.about.unit] : undefined
  const fromHouse = async (observation: Observation) => {
    try {
      const house = await openHouse()
      const here = [...house.units.values()].find(({ definition }) => definition.serial === unit?.facts.serial)
      if (!here) {
        setProblem('No unit of the house has this serial.')
        return
      }
      const room = search.about.room ? record.rooms?.[search.about.room]?.facts.name?.toLowerCase() : undefined
      const drawn =
        house.definition.plan?.storeys.flatMap((storey) =>
          storey.rooms.map((one) => ({
            name: one.name.toLowerCase(),
            where: { storey: storey.name, x: one.x + one.widthM / 2, y: one.y + one.depthM / 2, heightM: 1 }
          }))
        ) ?? []
      const where = drawn.find(({ name }) => name === room)?.where ?? here.at ?? { storey: '', x: 0, y: 0 }
      const answer = observeHouse(house, { unit: here.definition.id, where }, observation.id as ObservationId)
      if (answer === null) setProblem('The house cannot tell that: answer it yourself.')
      else {
        setProblem(null)
        tell(observation.id, answer)
      }
    } catch (error) {
      setProblem(error instanceof ApiProblem ? error.document.title : 'The server is not in reach; try again.')
    }
  }
  const end = (cause: CauseId, how: 'mended' | 'provider' | 'maker' | 'left') =>
    write('fault.found', {
      search: search.id,
      cause,
      end: how,
      probability: suspects.find((one) => one.cause.id === cause)!.probability
    })
  const model = unit ? catalogue.get(modelKey(unit.facts.model ?? '', unit.facts.modelVersion ?? 1)) : undefined
  return (
    <section aria-label="The search" className="grid gap-4 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
      <div className="flex flex-col gap-4">
        <div className="paper p-4">
          <p className="text-soft">Looking for what is wrong{aboutWords(record, search.about)}.</p>
          {shown && (
            <div role="group" aria-label="Look at this next" className="mt-1">
              <h3 className="text-xl">{shown.asks}</h3>
              <p className="fine">
                About {shown.minutes} min
                {step.do === 'test' && step.test.observation.id === shown.id ? `; it tells the most for its time` : ''}.
              </p>
              {mayWrite && (
                <div className="mt-2 flex flex-wrap gap-2">
                  {shown.answers.map(({ id, words }) => (
                    <Button key={id} onClick={() => tell(shown.id, id)}>
                      {words}
                    </Button>
                  ))}
                  {record.house && shown.order !== 99 && (
                    <Button kind="quiet" onClick={() => void fromHouse(shown)}>
                      Look in the house
                    </Button>
                  )}
                  {asked && (
                    <Button kind="quiet" onClick={() => setAsked(null)}>
                      Not now
                    </Button>
                  )}
                </div>
              )}
            </div>
          )}
          {mend && (
            <div role="group" aria-label="Mend this" className="mt-1">
              <h3 className="text-xl">
                {mend.cause.name} <span className="text-base font-normal">{percent(mend.probability)}</span>
              </h3>
              <p className="mt-1">{mend.cause.mend}</p>
              <p className="fine">
                About {mend.cause.mendMin} min. {effects[mend.cause.id].why}
              </p>
              {mend.cause.wipes && (
                <p className="mt-2 bg-inv px-3 py-2 font-bold text-oninv">
                  It costs everything that is set on the unit. Every look that this home offers was taken first.
                </p>
              )}
              {mayWrite && (
                <div className="mt-2 flex flex-wrap gap-2">
                  <Button
                    kind="main"
                    onClick={() => {
                      tell(mendedId(mend.cause.id), 'helped')
                      end(mend.cause.id, 'mended')
                    }}
                  >
                    Mended: it works now
                  </Button>
                  <Button onClick={() => tell(mendedId(mend.cause.id), 'not')}>It did not help</Button>
                  {mend.cause.handOver && (
                    <Button onClick={() => setSending(true)}>Hand over to the {mend.cause.handOver}</Button>
                  )}
                </div>
              )}
            </div>
          )}
          {!asked && step.do === 'done' && (
            <div role="group" aria-label="It works now" className="mt-1">
              <h3 className="text-xl">It works now.</h3>
              <p className="mt-1">
                {step.by.asks.split('?')[0]!.split(':')[0]}: that made it work, most likely because{' '}
                {step.suspect.cause.name[0]!.toLowerCase()}
                {step.suspect.cause.name.slice(1)}.
              </p>
              {mayWrite && (
                <div className="mt-2 flex flex-wrap gap-2">
                  <Button kind="main" onClick={() => end(step.suspect.cause.id, 'mended')}>
                    Mended: close the search
                  </Button>
                  <Button onClick={() => tell(step.by.id, null)}>It does not after all</Button>
                </div>
              )}
            </div>
          )}
          <Problem says={problem} className="mt-2" />
        </div>
        {odd.length > 0 && (
          <div role="note" className="border-l-4 border-ink bg-well p-3">
            <b>These hardly go together:</b>
            <ul>
              {odd.map(({ observation, answer }) => (
                <li key={observation.id}>
                  {observation.asks} <b>{wordsOf(observation, answer)}</b>
                </li>
              ))}
            </ul>
            <p className="fine">Look again where you can; all are weighed as they stand.</p>
          </div>
        )}
        {others.length > 0 && mayWrite && (
          <details>
            <summary className="min-h-11 py-2">Look at something else first</summary>
            <ul className="flex flex-col gap-1">
              {others.map(({ observation }) => (
                <li key={observation.id}>
                  <Button kind="quiet" className="text-left" onClick={() => setAsked(observation.id)}>
                    {observation.asks} <span className="fine">about {observation.minutes} min</span>
                  </Button>
                </li>
              ))}
            </ul>
          </details>
        )}
        <section aria-label="What was seen">
          <h3>What was seen</h3>
          <ul className="mt-1 divide-y divide-rule border-y border-rule text-sm">
            {Object.entries(observed).map(([id, answer]) => {
              const one = observationOf(id)
              return (
                one &&
                answer !== undefined && (
                  <li key={id} className="flex flex-wrap items-baseline gap-x-2 py-1.5">
                    <span className="grow">
                      {one.asks} <b>{wordsOf(one, answer)}</b>
                      {answered[id] === undefined && <span className="fine"> {known[id]?.from}</span>}
                    </span>
                    {mayWrite &&
                      (answered[id] !== undefined ? (
                        <button
                          type="button"
                          className="underline"
                          aria-label={`Take back: ${one.asks}`}
                          onClick={() => tell(id, null)}
                        >
                          take back
                        </button>
                      ) : (
                        <button
                          type="button"
                          className="underline"
                          aria-label={`Answer anew: ${one.asks}`}
                          onClick={() => setAsked(id)}
                        >
                          answer anew
                        </button>
                      ))}
                  </li>
                )
              )
            })}
          </ul>
        </section>
      </div>
      <section aria-label="Causes" className="paper p-4">
        <h3>What it may be</h3>
        <ol className="mt-2 flex flex-col gap-1.5">
          {suspects
            .filter(({ probability }, at) => at < 8 && (probability > 0.002 || at < 3))
            .map(({ cause, probability, because }) => (
              <li key={cause.id}>
                <button
                  type="button"
                  className="block w-full text-left"
                  aria-expanded={why === cause.id}
                  onClick={() => setWhy(why === cause.id ? null : cause.id)}
                >
                  <span className="flex items-baseline justify-between gap-3">
                    <span>
                      <b>{cause.name}</b>
                      {undecided(cause.id, observed, offered) && <span className="fine"> not looked at yet</span>}
                    </span>
                    <span className="exact whitespace-nowrap">{percent(probability)}</span>
                  </span>
                  <span className="block h-2.5 border border-edge bg-well" aria-hidden>
                    <span className="block h-full bg-ink" style={{ width: `${Math.max(0.5, probability * 100)}%` }} />
                  </span>
                </button>
                {why === cause.id && (
                  <div className="mt-1 border-l-4 border-plum pl-3 text-sm">
                    <p>{effects[cause.id].why}</p>
                    <ul className="mt-1">
                      {because.slice(0, 5).map(({ observation, answer, bits }) => (
                        <li key={observation.id}>
                          <b>{weightWords(bits)}</b>: {observation.asks} {wordsOf(observation, answer)}.
                        </li>
                      ))}
                    </ul>
                    <p className="fine mt-1">
                      Of a hundred faults about {cause.baseRate} are this one. Mending takes about {cause.mendMin} min.
                    </p>
                  </div>
                )}
              </li>
            ))}
        </ol>
        <p className="fine mt-3">
          From our own estimates of how often each is the cause and shows so. Press a cause for what moved it.
        </p>
        {mayWrite && (
          <p className="mt-3 flex flex-wrap gap-2">
            <Button kind="quiet" onClick={() => setSending(true)}>
              Hand it over as it is
            </Button>
            <Button kind="quiet" onClick={() => end(suspects[0]!.cause.id, 'left')}>
              Leave it
            </Button>
          </p>
        )}
      </section>
      <Sheet
        open={sending}
        onClose={() => setSending(false)}
        title="Hand over"
        says="What was seen and ruled out, to send. It names no customer and holds no secret."
      >
        <HandOver
          text={handOverText(
            suspects[0]!.cause.id,
            observed,
            {
              unit: unit ? unitName(unit) : null,
              model: model ? `${model.maker} ${model.name}` : null,
              serial: unit?.facts.serial ?? null,
              line: record.brief.facts.accessLine?.replace('-', ' ') ?? null,
              speedMbps: record.brief.facts.speedDownMbps ?? null
            },
            offered
          )}
          onSent={(to) => {
            end(suspects[0]!.cause.id, to)
            setSending(false)
          }}
        />
      </Sheet>
    </section>
  )
}

const wordsOf = (observation: Observation, answer: string) =>
  observation.answers.find(({ id }) => id === answer)?.words ?? answer

function HandOver({ text, onSent }: { text: string; onSent: (to: 'provider' | 'maker') => void }) {
  const [copied, setCopied] = useState(false)
  return (
    <div>
      <label className="label">
        Text to send
        <textarea readOnly className="box exact mt-1 min-h-72 text-sm font-normal" value={text} />
      </label>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button
          onClick={() =>
            void navigator.clipboard.writeText(text).then(
              () => setCopied(true),
              () => undefined
            )
          }
        >
          {copied ? 'Copied' : 'Copy it'}
        </Button>
        <Button kind="main" onClick={() => onSent('provider')}>
          Given to the provider
        </Button>
        <Button onClick={() => onSent('maker')}>Given to the maker</Button>
      </div>
    </div>
  )
}

/** Which looks there are at this home: nobody is asked for a router where there is none, nor for a hop of a cabled unit. */
function applicable(record: VisitRecord, about: Complaint): ReadonlySet<string> {
  const units = standing(record.units)
  const line = units.some(({ facts }) => facts.role === 'modem' || facts.role === 'gateway')
  const router = units.find(({ facts }) => facts.role === 'router')
  const unit = units.find(({ id }) => id === about.unit)
  const joined = unit?.facts.role === 'node' || unit?.facts.role === 'extender'
  const not = new Set<string>([
    ...(line ? [] : ['line-lamp', 'restart-modem', 'wired-modem']),
    ...(router && line ? [] : ['wan-link', 'swap-wan-cable', 'wan-address']),
    ...(router && router.id !== unit?.id ? [] : ['router-lamp', 'wifi-router']),
    ...(joined && unit?.facts.cabled !== true ? [] : ['hop-signal']),
    ...(unit?.facts.role === 'node' ? [] : ['family']),
    ...(joined ? [] : ['pairing-time']),
    ...(unit?.facts.cabled || unit?.facts.role === 'access-point' ? [] : ['unit-link', 'swap-unit-cable'])
  ])
  return new Set(observations.map(({ id }) => id as string).filter((id) => !not.has(id)))
}

/** How an answer speaks for a cause, from its bits: three make it eight times as likely against the others, one twice. */
function weightWords(bits: number): string {
  const side = bits >= 0 ? 'For it' : 'Against it'
  const weight = Math.abs(bits)
  if (weight >= 3) return `${side}, strongly`
  return weight >= 1 ? side : `${side}, a little`
}
