import type { Band } from '@pasado/core/values/band'
import { v7 as uuidv7 } from 'uuid'
import { measurementOf, MOST_RUNS } from '@pasado/core/work/prove/same-measurement'
import type { Facts } from '@pasado/core/record/facts'
import type { MeasuredRun } from '@pasado/core/record/things/measurement'
import { standing, thingsOf } from '@pasado/core/record/record'
import type { Look } from '../../../outbox/outbox'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'

/** What is measured: the source, a room, or a wired port of a unit. */
export interface MeasuredSpot {
  at: 'source' | 'room' | 'port'
  room?: string | undefined
  unit?: string | undefined
  band?: Band | undefined
  dbm?: number | undefined
}

/** Records a run: added to the measurement of this spot where that is fresh, else as a new one. */
export function recordRun(
  spot: MeasuredSpot,
  runs: MeasuredRun[],
  more: Pick<Facts<'measurement'>, 'by' | 'how' | 'file' | 'sure'>,
  look?: Look
): void {
  const { record, history, catalogue } = useVisit.getState()
  const { dbm, ...place } = spot
  const fresh = measurementOf({ record, history }, catalogue, { ...place, how: more.how }, runs.length, Date.now())
  const set = Object.fromEntries(
    Object.entries({
      ...place,
      ...(dbm === undefined ? {} : { dbm }),
      ...more,
      runs: [...(fresh?.facts.runs ?? []), ...runs].slice(-MOST_RUNS)
    }).filter(([, value]) => value !== undefined)
  )
  write('measurement.set', { id: fresh?.id ?? uuidv7(), set: set, origin: 'measured' }, look ? { look } : {})
}

/** The first octets of a file's SHA-256, to know it again. */
export async function fileMark(text: string): Promise<string> {
  if (!('subtle' in crypto)) return ''
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text)))
  return [...digest.slice(0, 8)].map((octet) => octet.toString(16).padStart(2, '0')).join('')
}

/** Whether a file was read into this visit already, and when. */
export function readBefore(mark: string): string | null {
  const { record } = useVisit.getState()
  const found =
    mark === '' ? undefined : standing(thingsOf(record, 'measurement')).find(({ facts }) => facts.file === mark)
  return found?.meta.file?.at ?? null
}
