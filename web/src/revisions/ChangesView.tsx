import { format } from 'date-fns'
import type { Change, Changes, RoomFigures, ThingChanges } from '@pasado/core/documents/change'
import { Mark } from '../ui/Mark'
import { List } from '../ui/List'

const isWords = { added: 'new', gone: 'gone', changed: 'changed' } as const

/** Everything that differs between two revisions: thing by thing with why, rooms as they were measured, rules that came out otherwise. */
export function ChangesView({ changes }: { changes: Changes }) {
  const { things, rooms, outcomes, notAgain } = changes
  const open = notAgain > 0 && (
    <p className="paper p-4 text-soft">
      {notAgain} {notAgain === 1 ? 'room or rule' : 'rooms and rules'} of the earlier visit{' '}
      {notAgain === 1 ? 'was' : 'were'} not looked at again yet.
    </p>
  )
  if (things.length + rooms.length + outcomes.length === 0)
    return (
      <div className="flex flex-col gap-3">
        <p className="paper p-4">Nothing differs.</p>
        {open}
      </div>
    )
  return (
    <div
      className={`grid grid-cols-[minmax(0,1fr)] gap-5 ${rooms.length + outcomes.length + notAgain > 0 ? 'lg:grid-cols-[minmax(0,1.55fr)_minmax(0,1fr)]' : ''}`}
    >
      <section aria-label="What changed" className="flex min-w-0 flex-col gap-3">
        {things.length === 0 ? (
          <p className="paper p-4">No unit, name, address or choice changed.</p>
        ) : (
          things.map((thing) => <Thing key={`${thing.kind} ${thing.id}`} thing={thing} />)
        )}
      </section>
      <div className="flex min-w-0 flex-col gap-4">
        {rooms.length > 0 && (
          <section aria-label="Rooms" className="paper p-4">
            <h2 className="text-lg">Rooms</h2>
            <List className="mt-1">
              {rooms.map(({ name, before, after }) => (
                <li key={name} className="py-2">
                  <b>{name}</b>
                  <RoomBars
                    before={before}
                    after={after}
                    most={Math.max(
                      1,
                      ...rooms.flatMap((room) => [room.before?.downMbps ?? 0, room.after?.downMbps ?? 0])
                    )}
                  />
                </li>
              ))}
            </List>
          </section>
        )}
        {outcomes.length > 0 && (
          <section aria-label="Rules" className="paper p-4">
            <h2 className="text-lg">Rules that came out otherwise</h2>
            <List className="mt-1">
              {outcomes.map((outcome) => (
                <li
                  key={`${outcome.rule} ${outcome.subject}`}
                  className="grid grid-cols-[84px_minmax(0,1fr)] gap-x-3 py-2"
                >
                  <span className="flex items-start gap-1 pt-1">
                    <Mark outcome={outcome.before} width={34} />
                    <span aria-hidden>→</span>
                    <Mark outcome={outcome.after} width={34} />
                  </span>
                  <span>
                    <b>{outcome.subject ? `${outcome.subject}: ${outcome.name.toLowerCase()}` : outcome.name}</b>
                    <span className="block text-sm text-soft">{outcome.message}</span>
                  </span>
                </li>
              ))}
            </List>
          </section>
        )}
        {open}
      </div>
    </div>
  )
}

function Thing({ thing }: { thing: ThingChanges }) {
  return (
    <article aria-label={thing.name} className="paper p-4">
      <h2 className="flex flex-wrap items-baseline gap-x-3 text-lg">
        <span className={thing.is === 'gone' ? 'line-through decoration-2' : ''}>{thing.name}</span>
        <span className={thing.is === 'changed' ? 'fine' : 'border-2 border-ink px-2 text-sm'}>
          {isWords[thing.is]}
        </span>
      </h2>
      {thing.why.map((why) => (
        <p key={why} className="mt-1 border-l-4 border-plum pl-2 text-sm">
          {why}
        </p>
      ))}
      {thing.changes.length > 0 && (
        <dl className="mt-1 divide-y divide-rule">
          {thing.changes.map((change) => (
            <Line key={change.field} change={change} fresh={thing.is === 'added'} />
          ))}
        </dl>
      )}
    </article>
  )
}

function Line({ change: { label, before, after, by, why }, fresh }: { change: Change; fresh: boolean }) {
  return (
    <div className="grid grid-cols-1 gap-x-4 py-1.5 sm:grid-cols-[10rem_minmax(0,1fr)]">
      <dt className="text-soft first-letter:uppercase">{label}</dt>
      <dd className="min-w-0">
        <span className="flex flex-wrap items-baseline gap-x-2 [overflow-wrap:anywhere]">
          {!fresh && (
            <>
              <span className={`exact ${before === null ? 'text-soft' : 'line-through decoration-1'}`}>
                {before ?? 'not recorded'}
              </span>
              <span aria-label="now">→</span>
            </>
          )}
          <b className="exact">{after ?? 'not recorded'}</b>
        </span>
        {(why.length > 0 || (by && !fresh)) && (
          <span className="block text-sm text-soft">
            {why.length > 0 && <b>{why.join('; ')}. </b>}
            {by && !fresh ? `${by.name}, ${format(new Date(by.at), 'd MMM yyyy HH:mm')}` : ''}
          </span>
        )}
      </dd>
    </div>
  )
}

function RoomBars({ before, after, most }: { before: RoomFigures | null; after: RoomFigures | null; most: number }) {
  const bar = (figures: RoomFigures | null, says: string, strong: boolean) => (
    <span className="grid grid-cols-[3.2rem_minmax(0,1fr)_9.6rem] items-center gap-2 text-sm">
      <span className="text-soft">{says}</span>
      <span aria-hidden className="h-3 bg-well">
        <span
          className={`block h-full ${strong ? 'bg-ink' : 'bg-edge'}`}
          style={{ width: `${(100 * (figures?.downMbps ?? 0)) / most}%` }}
        />
      </span>
      <span className="whitespace-nowrap text-right">
        {figures
          ? `${figures.downMbps === null ? '?' : Math.round(figures.downMbps)} Mbit/s, ${figures.dbm === null ? '?' : Math.round(figures.dbm)} dBm`
          : 'not measured'}
      </span>
    </span>
  )
  return (
    <span className="mt-1 flex flex-col gap-1">
      {bar(before, 'before', false)}
      {bar(after, 'after', true)}
    </span>
  )
}
