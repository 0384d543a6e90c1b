import { format } from 'date-fns'
import { useState } from 'react'
import { measured } from '@pasado/core/work/prove/rooms'
import { unitName, type Unit } from '@pasado/core/record/record'
import { Mark, outcomeOf } from '../../../ui/Mark'
import { useFolded, useMayWrite } from '../../session/facts'
import { placeKey } from '../../session/place'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { MeasureForm } from './MeasureForm'
import { RunsLine } from './RunsLine'
import { Button } from '../../../ui/Button'

export function LinkTest({ unit }: { unit: Unit }) {
  const mayWrite = useMayWrite()
  const name = unitName(unit)
  const test = unit.events.findLast(({ what }) => what === 'tested-good' || what === 'tested-bad')
  const moved = unit.events.findLast(({ what }) => what === 'moved')
  const stale = Boolean(test && moved && moved.seq > test.seq)
  return (
    <div
      data-place={placeKey({ kind: 'unit', id: unit.id, field: 'test' })}
      className="flex flex-wrap items-center gap-3 py-2"
    >
      <Mark outcome={outcomeOf(!test || stale ? undefined : test.what === 'tested-good')} />
      <p className="grow basis-60">
        <b>Its link, by the family’s own test.</b>{' '}
        <span className={stale ? 'font-bold' : ''}>
          {test
            ? `${test.what === 'tested-good' ? 'Good' : 'Not good'}, ${format(new Date(test.at), 'HH:mm')}${stale ? ': moved since, test it again' : ''}.`
            : 'Not tested yet.'}
        </span>
      </p>
      {mayWrite && (
        <span className="flex gap-2">
          <Button
            aria-label={`${name}: the link is good`}
            onClick={() => write('unit.event', { unit: unit.id, what: 'tested-good' })}
          >
            Good
          </Button>
          <Button
            aria-label={`${name}: the link is not good`}
            onClick={() => write('unit.event', { unit: unit.id, what: 'tested-bad' })}
          >
            Not good
          </Button>
        </span>
      )}
    </div>
  )
}

export function Port({ unit }: { unit: Unit }) {
  const folded = useFolded()
  const catalogue = useVisit((state) => state.catalogue)
  const mayWrite = useMayWrite()
  const [open, setOpen] = useState(false)
  const [newest] = measured(folded, catalogue, ({ at, unit: of }) => at === 'port' && of === unit.id)
  const most = Math.max(
    0,
    ...(catalogue
      .get(`${unit.facts.model}@${unit.facts.modelVersion}`)
      ?.ports.filter(({ kind }) => kind === 'lan')
      .map(({ mbps }) => mbps ?? 0) ?? [])
  )
  return (
    <div data-place={placeKey({ kind: 'unit', id: unit.id, field: 'port' })} className="py-2">
      <div className="flex flex-wrap items-center gap-3">
        <Mark outcome={outcomeOf(!newest?.down || newest.stale ? undefined : newest.down.median > 0)} />
        <div className="grow basis-60">
          <b>A wired port{most ? `, up to ${most} Mbit/s` : ''}.</b>{' '}
          {newest ? <RunsLine result={newest} /> : 'Not tested yet.'}
        </div>
        {mayWrite && (
          <Button
            aria-expanded={open}
            aria-label={`Measure a port of ${unitName(unit)}`}
            onClick={() => setOpen(!open)}
          >
            Measure
          </Button>
        )}
      </div>
      {open && (
        <div className="mt-2">
          <MeasureForm
            spot={{ at: 'port', unit: unit.id }}
            expected={most ? { mostMbps: most } : {}}
            onDone={() => setOpen(false)}
          />
        </div>
      )}
    </div>
  )
}
