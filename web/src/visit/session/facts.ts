import { useMemo } from 'react'
import type { Folded } from '@pasado/core/history/history'
import { holderOf, conflictNow, type Conflict } from '@pasado/core/record/record'
import { checkField, type ThingKind } from '@pasado/core/record/facts'
import { type FieldMeta } from '@pasado/core/record/attribution'
import { useSession } from '../../app/session'
import type { Look } from '../../outbox/outbox'
import { useVisit } from './visit-state'
import { write } from './write'

/** A field of a thing, as a form shows it. */
export interface FactField {
  value: unknown
  meta: FieldMeta | undefined
  conflict: Conflict | undefined
  /** False where the visit is sealed or this person only reads. */
  mayWrite: boolean
  /** Writes a value; null clears. Gives what is wrong with it, in words, and then writes nothing. @param look when it was looked at, where that was not just now */
  set: (value: unknown, look?: Look) => string | null
}

/** Whether this person may write in the open visit. */
export function useMayWrite(): boolean {
  const sealed = useVisit((state) => state.record.seal !== null)
  const role = useSession((state) => state.me?.role)
  return !sealed && role !== undefined && role !== 'office'
}

/** The open visit’s logbook folded, with what is still on its way. */
export function useFolded(): Folded {
  const record = useVisit((state) => state.record)
  const history = useVisit((state) => state.history)
  return useMemo(() => ({ record, history }), [record, history])
}

/** Writes one field of a thing after checking it as the server will. Gives what is wrong with it, or null. */
function setFact(kind: ThingKind, id: string, field: string, value: unknown, look?: Look): string | null {
  if (value === null) {
    writeSet(kind, id, { [field]: null }, look)
    return null
  }
  const checked = checkField(kind, field, value)
  if ('problem' in checked) return checked.problem
  writeSet(kind, id, { [field]: checked.value }, look)
  return null
}

function writeSet(kind: ThingKind, id: string, set: Record<string, unknown>, look?: Look): void {
  const options = look ? { look } : {}
  if (kind === 'brief') write('brief.set', { set, origin: 'typed' }, options)
  else write(`${kind}.set`, { id, set, origin: 'typed' } as never, options)
}

/** One field of a thing of the open visit. */
export function useFact(kind: ThingKind, id: string, field: string): FactField {
  const thing = useVisit((state) => holderOf(state.record, kind, id))
  const record = useVisit((state) => (state.record.conflicts.length ? state.record : null))
  const found = record?.conflicts.find(
    (candidate) => candidate.thing === kind && candidate.id === id && candidate.field === field
  )
  const conflict = record && found ? conflictNow(record, found) : undefined
  const mayWrite = useMayWrite()
  return {
    value: thing?.facts[field],
    meta: thing?.meta[field],
    conflict,
    mayWrite,
    set: (value, look) => setFact(kind, id, field, value, look)
  }
}
