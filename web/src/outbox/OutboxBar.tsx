import { useState } from 'react'
import { offWords, useClock } from '../app/clock'
import { saveFile } from '../app/save-file'
import { claimRows, putRowAway, useOutbox, type OutboxRow } from './outbox'
import { itemWords } from './item-words'
import { countWords, homesWords } from './words'
import { Button } from '../ui/Button'

/**
 * What is not on the server, in every view: how much waits and for which homes, what was refused and why, what others left here.
 * @param visit the visit that is open, which says by itself what waits of it
 */
export function OutboxBar({ visit }: { visit?: string }) {
  const { rows, owner, stuckSince, keeps } = useOutbox()
  const aheadMs = useClock((state) => state.aheadMs)
  const mine = rows.filter((row) => row.owner?.id === owner?.id)
  const waiting = mine.filter((row) => row.refused === null && (row.visit !== visit || row.item.kind !== 'line'))
  const nobodys = rows.filter((row) => row.owner === null)
  const others = rows.filter((row) => row.owner !== null && owner !== null && row.owner.id !== owner.id)
  const names = [...new Set(others.map((row) => row.owner!.name))]
  const quiet = 'border-b border-rule bg-well px-4 py-2'
  return (
    <>
      {aheadMs !== null && (
        <p role="alert" className="bg-inv px-4 py-2 text-oninv">
          <b>This device’s clock is {offWords(aheadMs)}.</b> Times written here are wrong by that much. Set it right in
          the device’s settings.
        </p>
      )}
      <Refused rows={mine.filter((row) => row.refused !== null)} />
      {waiting.length > 0 && stuckSince !== null && (
        <p role="status" className={quiet}>
          <b>
            {capital(countWords(waiting))} {waiting.length === 1 ? 'waits' : 'wait'} on this device
          </b>{' '}
          to be sent: {homesWords(waiting)}. {waiting.length === 1 ? 'It goes' : 'They go'} by{' '}
          {waiting.length === 1 ? 'itself' : 'themselves'} when the server can be reached.
        </p>
      )}
      {!keeps && mine.length > 0 && (
        <p role="alert" className="bg-inv px-4 py-2 text-oninv">
          <b>This browser keeps nothing.</b> Stay on this page until everything is sent.
        </p>
      )}
      {nobodys.length > 0 && (
        <p role="alert" className={`${quiet} flex flex-wrap items-center gap-3`}>
          <span className="grow">
            {capital(countWords(nobodys))} from before {nobodys.length === 1 ? 'waits' : 'wait'} here (
            {homesWords(nobodys)}), and it is not known who wrote {nobodys.length === 1 ? 'it' : 'them'}.
          </span>
          <Button onClick={claimRows}>
            {nobodys.length === 1 ? 'It is' : 'They are'} mine, send {nobodys.length === 1 ? 'it' : 'them'}
          </Button>
        </p>
      )}
      {others.length > 0 && (
        <p role="status" className={quiet}>
          {capital(countWords(others))} of {names.join(' and ')} {others.length === 1 ? 'waits' : 'wait'} on this
          device, and {others.length === 1 ? 'is' : 'are'} sent when {names.length === 1 ? names[0] : 'they'} next{' '}
          {names.length === 1 ? 'logs' : 'log'} in here.
        </p>
      )}
    </>
  )
}

const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1)

/** What the server did not take, by visit and reason; each stays until a person has dealt with it. */
function Refused({ rows }: { rows: readonly OutboxRow[] }) {
  const groups = new Map<string, OutboxRow[]>()
  for (const row of rows)
    groups.set(`${row.visit} ${row.refused}`, [...(groups.get(`${row.visit} ${row.refused}`) ?? []), row])
  if (groups.size === 0) return null
  return (
    <ul className="bg-inv text-oninv" role="alert">
      {[...groups].map(([key, group]) => (
        <RefusedGroup key={key} rows={group} />
      ))}
    </ul>
  )
}

const SHOWN_AT_ONCE = 3

function RefusedGroup({ rows }: { rows: readonly OutboxRow[] }) {
  const [all, setAll] = useState(false)
  const { street, refused, visit } = rows[0]!
  const shown = all ? rows : rows.slice(0, SHOWN_AT_ONCE)
  const each = rows.length === 1
  const putAway = () => {
    for (const { key } of rows) putRowAway(key)
  }
  const save = () =>
    saveFile(
      `pasado-not-taken-${visit.slice(-12)}.txt`,
      `${rows.map(({ item }) => itemWords(item)).join('\n')}\n`,
      'text/plain'
    )
  return (
    <li className="flex flex-wrap items-start gap-3 p-4">
      <div className="grow basis-72">
        <p className="font-bold">
          {each ? 'This was not taken' : `${capital(countWords(rows))} were not taken`}
          {street && <span className="font-normal"> · {street}</span>}
        </p>
        <p className="text-sm">{refused}</p>
        <ul className="mt-1 text-sm">
          {shown.map(({ key, item }) => (
            <li key={key} className="break-words">
              {itemWords(item)}
            </li>
          ))}
        </ul>
        {rows.length > shown.length && (
          <button type="button" className="min-h-11 underline" onClick={() => setAll(true)}>
            Show all {rows.length}
          </button>
        )}
      </div>
      <Button onClick={save}>Save as text</Button>
      <Button onClick={putAway}>{each ? 'Put away' : `Put all ${rows.length} away`}</Button>
    </li>
  )
}
