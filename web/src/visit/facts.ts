import { checkField, type ThingKind } from '@pasado/core/record/facts'
import { thingsOf, type Conflict, type FieldMeta, type VisitRecord } from '@pasado/core/record/record'
import { useSession } from '../app/session'
import { useVisit, write } from './store'

/** A field of a thing, as a form shows it. */
export interface FactField {
  value: unknown
  meta: FieldMeta | undefined
  conflict: Conflict | undefined
  /** False where the visit is sealed or this person only reads. */
  mayWrite: boolean
  /** Writes a value; null clears. Gives what is wrong with it, in words, and then writes nothing. */
  set: (value: unknown) => string | null
}

function thingIn(record: VisitRecord, kind: ThingKind, id: string) {
  if (kind === 'brief') return record.brief
  return (thingsOf(record, kind) as Record<string, { facts: Record<string, unknown>; meta: Record<string, FieldMeta> }>)[id]
}

/** Whether this person may write in the open visit. */
export function useMayWrite(): boolean {
  const sealed = useVisit((state) => state.record.seal !== null)
  const role = useSession((state) => state.me?.role)
  return !sealed && role !== undefined && role !== 'office'
}

/** Writes one field of a thing after checking it as the server will. Gives what is wrong with it, or null. */
export function setFact(kind: ThingKind, id: string, field: string, value: unknown): string | null {
  if (value === null) {
    writeSet(kind, id, { [field]: null })
    return null
  }
  const checked = checkField(kind, field, value)
  if ('problem' in checked) return checked.problem
  writeSet(kind, id, { [field]: checked.value })
  return null
}

function writeSet(kind: ThingKind, id: string, set: Record<string, unknown>): void {
  if (kind === 'brief') write('brief.set', { set, origin: 'typed' })
  else write(`${kind}.set`, { id, set, origin: 'typed' } as never)
}

/** One field of a thing of the open visit. */
export function useFact(kind: ThingKind, id: string, field: string): FactField {
  const thing = useVisit((state) => thingIn(state.record, kind, id))
  const conflict = useVisit((state) => state.record.conflicts.find((one) => one.thing === kind && one.id === id && one.field === field))
  const mayWrite = useMayWrite()
  return {
    value: (thing?.facts as Record<string, unknown> | undefined)?.[field],
    meta: thing?.meta[field],
    conflict,
    mayWrite,
    set: (value) => setFact(kind, id, field, value)
  }
}
