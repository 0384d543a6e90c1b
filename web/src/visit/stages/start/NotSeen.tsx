import { useEffect, useState } from 'react'
import type { Model } from '@pasado/core/catalogue/model'
import { pressKind, pressLength } from '@pasado/core/catalogue/presses'
import type { Unit } from '@pasado/core/record/record'
import { notYet } from '@pasado/core/work/units/look-moves'
import { clock } from '../../frame/Waits'
import { useVisit } from '../../session/visit-state'
import { Notice } from '../../../ui/Notice'

type Method = Model['methods'][number]

/** What is told who does not see it: to wait, as long as the clock says so; after its longest what to try. */
export function NotSeen({ unit, model, ifNot, kind }: Parameters<typeof IfNot>[0]) {
  const record = useVisit((state) => state.record)
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    setNow(Date.now())
    const timer = setInterval(() => setNow(Date.now()), 1000)
    return () => clearInterval(timer)
  }, [record])
  const early = notYet(record, unit, model, now)
  if (!early || early.kind === 'late') return <IfNot unit={unit} model={model} ifNot={ifNot} kind={kind} />
  const { goneMin, usualMin, mostMin } = early
  const gone = clock(goneMin * 60_000)
  return (
    <Notice role="status" edge="ink" className="mt-3">
      {early.kind === 'wait' ? (
        <>
          <b>
            It has run {gone} of usually {usualMin} min: wait.
          </b>{' '}
          It may go back and forth meanwhile: leave it switched on, and restart nothing.
        </>
      ) : (
        <>
          <b>
            It has run {gone}, usually {usualMin} min, at most {mostMin} min.
          </b>{' '}
          It may still come: log what its lamps do now, and leave it switched on.
        </>
      )}
    </Notice>
  )
}

/** What to try when a step does not show what it is to show: cheap things first, the factory reset last, with what it takes. */
function IfNot({
  model,
  unit,
  ifNot,
  kind
}: {
  model: Model
  unit: Unit
  ifNot: string | undefined
  kind: Method['kind']
}) {
  const record = useVisit((state) => state.record)
  const presses = model.buttons.flatMap((button) => button.presses.map((press) => ({ button, press })))
  const restart = presses.find(({ press }) => pressKind(press) === 'restart')
  const reset = presses.find(({ press }) => pressKind(press) === 'reset')
  const loses = [
    ...(unit.pairing?.length ? ['its pairing'] : []),
    ...(unit.facts.dhcpServer || unit.facts.mode ? ['its mode and DHCP settings'] : []),
    ...(Object.values(record.hosts).some(({ facts, removedSeq }) => removedSeq === null && facts.unit === unit.id)
      ? ['its address']
      : []),
    ...(Object.values(record.secrets).some(({ id, purpose }) => id === unit.id && purpose === 'admin-password')
      ? ['its admin password']
      : []),
    ...(unit.facts.role === 'router' || unit.facts.role === 'gateway'
      ? ['every network name and passphrase on it']
      : [])
  ]
  return (
    <Notice role="status" edge="ink" className="mt-3">
      <b>Not seen? In this order:</b>
      <ol className="mt-1 list-decimal pl-5">
        {ifNot && (
          <li>
            <b>{ifNot}.</b>
          </li>
        )}
        {kind === 'push-button' && <li>Bring both closer, and press both again, the second within two minutes.</li>}
        <li>Look at its lamps and log them: what they mean may be another thing.</li>
        <li>
          {restart
            ? `Restart: ${restart.button.name}, ${pressLength(restart.press)}.`
            : 'Restart: pull its plug, count to ten, and in again.'}
        </li>
        {reset && (
          <li>
            Only last, the factory reset: {reset.button.name}, {pressLength(reset.press)}
            {reset.press.confirms
              ? `, until it shows ${model.states.find(({ state }) => state === reset.press.confirms)?.meaning ?? reset.press.confirms}`
              : ''}
            .{' '}
            {loses.length ? (
              <b>It loses {loses.join(', ')}: configure it anew afterwards.</b>
            ) : (
              'Nothing of it was configured yet.'
            )}
          </li>
        )}
      </ol>
    </Notice>
  )
}
