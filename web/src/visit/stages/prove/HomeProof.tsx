import { addHours, format, setHours, startOfHour } from 'date-fns'
import { useMemo, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { standing, thingsOf } from '@pasado/core/record/record'
import { homeOf } from '@pasado/core/rules/rule'
import { isMeshMember } from '@pasado/core/work/units/known-unit'
import { namesToBeGone, voiceCalls } from '@pasado/core/rules/stages/prove-names'
import { sendsNow } from '@pasado/core/house/measure'
import { Chips } from '../../../ui/Chips'
import { Mark } from '../../../ui/Mark'
import { failureTitle } from '../../../app/api'
import { useFolded, useMayWrite } from '../../session/facts'
import { yesOrNo } from '../../fields/FactField'
import { useAnswerNow } from '../../session/answer-now'
import { placeKey } from '../../session/place'
import { Stale } from '../../frame/Stale'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { openHouse } from './open-house'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { List } from '../../../ui/List'
import { Field, Input } from '../../../ui/Field'

/** What is proven of the home as a whole: names gone, devices rejoined, telephone, and the look when it has settled. */
export function HomeProof() {
  const folded = useFolded()
  const { record } = folded
  const catalogue = useVisit((state) => state.catalogue)
  const policy = useVisit((state) => state.standard.policy)
  const home = useMemo(() => homeOf(folded, catalogue, policy), [folded, catalogue, policy])
  const mayWrite = useMayWrite()
  const names = namesToBeGone(home)
  const devices = standing(thingsOf(record, 'device'))
  const mesh = home.units.filter(isMeshMember).length > 1
  const [problem, setProblem] = useState<string | null>(null)
  const answerNow = useAnswerNow()
  const listen = async () => {
    try {
      const house = await openHouse()
      const heard = new Set(
        [...house.units.values()]
          .filter((unit) => sendsNow(unit) || (unit.powered && unit.condition === 'ready'))
          .map(({ running }) => running['wifi.ssid'])
      )
      for (const { id, ssid } of names)
        write('rule.answered', { rule: 'prove-names-gone', subject: id, answer: heard.has(ssid) ? 'no' : 'yes' })
      setProblem(null)
    } catch (error) {
      setProblem(failureTitle(error, 'The server is not in reach; try again.'))
    }
  }
  return (
    <div className="flex flex-col gap-4">
      {names.length > 0 && (
        <section aria-label="Names that are to be gone" className="paper p-4">
          <div className="flex flex-wrap items-center gap-3">
            <h3 className="grow">Names that are to be gone from the air</h3>
            {mayWrite && record.house && <Button onClick={() => void listen()}>Listen in the simulated house</Button>}
          </div>
          <Problem message={problem} />
          <List className="mt-1">
            {names.map(({ id, ssid, label }) => {
              const { value, outcome, stale } = answerNow('prove-names-gone', id)
              return (
                <li
                  key={id}
                  data-place={placeKey({ kind: 'unit', id, field: 'gone' })}
                  className="flex flex-wrap items-center gap-3 py-2"
                >
                  <Mark outcome={outcome} />
                  <p className="grow basis-52">
                    <b className="exact break-all">{ssid}</b> <span className="text-soft">{label}</span>
                    <Stale why={stale} />
                  </p>
                  <Chips
                    label={`${ssid} is gone`}
                    value={value}
                    disabled={!mayWrite}
                    options={[
                      { value: 'yes', label: 'gone' },
                      { value: 'no', label: 'still there' }
                    ]}
                    onChoose={(given) =>
                      write('rule.answered', { rule: 'prove-names-gone', subject: id, answer: given })
                    }
                  />
                </li>
              )
            })}
          </List>
        </section>
      )}
      {devices.length > 0 && (
        <section aria-label="Devices rejoined" className="paper p-4">
          <h3>The customer’s devices</h3>
          <List className="mt-1">
            {devices.map(({ id, facts }) => {
              const { value, outcome, stale } = answerNow('prove-rejoined', id, yesOrNo(facts.rejoined))
              const name = facts.name ?? 'Device'
              return (
                <li
                  key={id}
                  data-place={placeKey({ kind: 'device', id, field: 'rejoined' })}
                  className="flex flex-wrap items-center gap-3 py-2"
                >
                  <Mark outcome={outcome} />
                  <p className="grow basis-52">
                    <b>{name}</b>
                    <Stale why={stale} />
                  </p>
                  <Chips
                    label={`${name} has rejoined`}
                    value={value}
                    disabled={!mayWrite}
                    options={[
                      { value: 'yes', label: 'rejoined' },
                      { value: 'no', label: 'does not join' }
                    ]}
                    onChoose={(chosen) => write('device.set', { id, set: { rejoined: chosen === 'yes' } })}
                  />
                </li>
              )
            })}
          </List>
        </section>
      )}
      {record.brief.facts.telephone === true && (
        <section aria-label="Telephone" className="paper p-4">
          <h3>Telephone through the modem</h3>
          <List className="mt-1">
            {voiceCalls.map(({ id, asks }) => {
              const { value, outcome, stale } = answerNow('prove-voice', id)
              return (
                <li
                  key={id}
                  data-place={placeKey({ kind: 'answer', id: 'prove-voice', field: id })}
                  className="flex flex-wrap items-center gap-3 py-2"
                >
                  <Mark outcome={outcome} />
                  <p className="grow basis-52">
                    {asks}.
                    <Stale why={stale} />
                  </p>
                  <Chips
                    label={asks}
                    value={value}
                    disabled={!mayWrite}
                    options={[
                      { value: 'yes', label: 'Yes' },
                      { value: 'no', label: 'No' }
                    ]}
                    onChoose={(given) => write('rule.answered', { rule: 'prove-voice', subject: id, answer: given })}
                  />
                </li>
              )
            })}
          </List>
        </section>
      )}
      {mesh && <Settle hours={policy.settleH ?? 24} />}
      {names.length === 0 && devices.length === 0 && record.brief.facts.telephone !== true && !mesh && (
        <p>Nothing of this kind is at this home. The customer’s devices are listed under Configure, Wi-Fi.</p>
      )}
    </div>
  )
}

const WINDOW_H = 4

/** A time at which customers are at home: not before eight, not after six. */
function inTheDay(first: Date): Date {
  if (first.getHours() < 8) return setHours(first, 9)
  return first.getHours() > 18 ? addHours(setHours(first, 9), 24) : first
}

/** A look when the mesh has settled: booked for a stretch of hours, and then stands in the day. */
function Settle({ hours }: { hours: number }) {
  const checks = useVisit((state) => state.record.checks)
  const mayWrite = useMayWrite()
  const booked = Object.values(checks ?? {}).filter(({ cancelled }) => !cancelled)
  const first = startOfHour(addHours(new Date(), hours + 1))
  const [from, setFrom] = useState(format(inTheDay(first), "yyyy-MM-dd'T'HH:mm"))
  const [problem, setProblem] = useState<string | null>(null)
  const book = () => {
    const start = new Date(from)
    if (Number.isNaN(start.getTime())) {
      setProblem('From must be a day and a time.')
      return
    }
    if (start.getTime() < Date.now()) {
      setProblem('From lies in the past: choose a later time.')
      return
    }
    setProblem(null)
    write('check.booked', { id: uuidv7(), from: start.toISOString(), to: addHours(start, WINDOW_H).toISOString() })
  }
  return (
    <section
      aria-label="Check when settled"
      className="paper p-4"
      data-place={placeKey({ kind: 'answer', id: 'prove-settle', field: 'check' })}
    >
      <div className="flex flex-wrap items-center gap-3">
        <Mark outcome={booked.length ? 'holds' : 'unproven'} />
        <h3 className="grow">A look when the mesh has settled</h3>
      </div>
      <ul>
        {booked.map(({ id, from: start, to }) => (
          <li key={id} className="mt-2 flex flex-wrap items-center gap-3">
            <span>
              <b>{format(new Date(start), 'EEEE, d MMM HH:mm')}</b> to {format(new Date(to), 'HH:mm')}; it stands in the
              day then, with the rooms as they are now.
            </span>
            {mayWrite && (
              <Button kind="quiet" onClick={() => write('check.cancelled', { id })}>
                Take it back
              </Button>
            )}
          </li>
        ))}
      </ul>
      {mayWrite && booked.length === 0 && (
        <div className="mt-2 flex flex-wrap items-end gap-2">
          <Field label="From">
            <Input
              type="datetime-local"

              value={from}
              onChange={(event) => setFrom(event.target.value)}
            />
          </Field>
          <Button kind="main" onClick={book}>
            Book {WINDOW_H} hours from then
          </Button>
        </div>
      )}
      <Problem message={problem} className="mt-1" />
      <p className="fine mt-1">At least {hours} h after it was set up.</p>
    </section>
  )
}
