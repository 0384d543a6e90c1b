import { format } from 'date-fns'
import type { Measured } from '@pasado/core/work/prove/rooms'
import { unitName } from '@pasado/core/record/record'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'

const howWords = {
  typed: 'typed',
  list: 'from a list',
  'result-file': 'from a result file',
  'stand-in': 'against our stand-in source',
  'simulated-house': 'in the simulated house'
} as const

/** A measurement in one line: medians with their spread, outliers named, from where it is. */
export function RunsLine({ result }: { result: Measured }) {
  const units = useVisit((state) => state.record.units)
  const mayWrite = useMayWrite()
  const { facts, meta, id } = result.measurement
  const figures = [
    [result.down, 'down', 'Mbit/s'],
    [result.up, 'up', 'Mbit/s'],
    [result.idle, 'idle', 'ms'],
    [result.loaded, 'loaded', 'ms'],
    [result.loss, 'loss', '%']
  ] as const
  const outliers = [...new Set(figures.flatMap(([summary]) => summary?.outliers ?? []))].sort((a, b) => a - b)
  const at = meta.runs?.at
  return (
    <p className="text-sm">
      {facts.band && <b>{facts.band} GHz, </b>}
      {facts.dbm !== undefined && (
        <>
          <b>{facts.dbm} dBm</b>,{' '}
        </>
      )}
      {figures
        .filter(([summary]) => summary !== null)
        .map(([summary, name, unit], index) => (
          <span key={name}>
            {index > 0 ? ', ' : ''}
            <b>{tidy(summary!.median)}</b> {unit} {name}
            {summary!.count > 1 ? (
              <span className="text-soft">
                {' '}
                ({tidy(summary!.least)}–{tidy(summary!.most)})
              </span>
            ) : (
              ''
            )}
          </span>
        ))}
      <span className="text-soft">
        . {facts.runs!.length > 1 ? `Median of ${facts.runs!.length} runs` : 'One run'}
        {outliers.length ? `; run ${outliers.join(', ')} stands apart and is counted` : ''}
        {facts.unit && units[facts.unit] ? `, by ${unitName(units[facts.unit]!)}` : ''},{' '}
        {howWords[facts.how ?? 'typed']}
        {facts.by ? ` on a ${facts.by}` : ''}
        {at ? `, ${format(new Date(at), 'HH:mm')}` : ''}
        {facts.sure ? '; asked about, and so' : ''}.
      </span>
      {result.stale && <b> {result.stale}</b>}
      {mayWrite && ' '}
      {mayWrite && (
        <button
          type="button"
          className="min-h-6 underline"
          aria-label={`Take this measurement out: ${facts.band ? `${facts.band} GHz` : facts.at}`}
          onClick={() => write('thing.removed', { thing: 'measurement', id })}
        >
          take out
        </button>
      )}
    </p>
  )
}

const tidy = (value: number) => (value < 10 ? Math.round(value * 10) / 10 : Math.round(value))
