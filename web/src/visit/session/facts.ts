import { useMemo } from 'react'
import { useShallow } from 'zustand/react/shallow'
import type { Folded } from '@pasado/core/history/fold'
import { conflictsOf, type Unsettled } from '@pasado/core/history/conflicts'
import { settlementOf } from '@pasado/core/history/settle'
import type { EntryKind } from '@pasado/core/record/entries/all'
import { fieldKey } from '@pasado/core/record/keys'
import { worksOn } from '@pasado/core/record/may'
import { holderOf } from '@pasado/core/record/record'
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
  conflict: Unsettled | undefined
  /** False where the visit is sealed or this person only reads. */
  mayWrite: boolean
  /** Writes a value; null clears. Gives what is wrong with it, in words, and then writes nothing. @param look when it was looked at, where that was not just now */
  set: (value: unknown, look?: Look) => string | null
}

/** Whether this person may write in the open visit: who has it, who joined it, and leads, until it is sealed. */
export function useMayWrite(): boolean {
  const sealed = useVisit(({ record }) => record.seal !== null || record.visit.cancelled !== undefined)
  const works = useWorksOn()
  return !sealed && works
}

/** Whether this person works on the open visit. */
export function useWorksOn(): boolean {
  const me = useSession((state) => state.me)
  return useVisit(({ record }) => Boolean(me && me.role !== 'office' && worksOn(record, me)))
}

/** The open visit’s logbook folded, with what is still on its way. */
export function useFolded(): Folded {
  const record = useVisit((state) => state.record)
  const history = useVisit((state) => state.history)
  return useMemo(() => ({ record, history }), [record, history])
}

/** What two people set who had not seen each other, and nobody has settled since. */
export function useConflicts(): readonly Unsettled[] {
  return useVisit(useShallow((state) => conflictsOf(state.history)))
}

/** Settles a conflict for one of its values. */
export function settle(conflict: Unsettled, value: unknown): void {
  const settlement = settlementOf(useVisit.getState().record, conflict, value)
  if (settlement) write(settlement.kind as EntryKind, settlement.body as never)
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
  // Each part for itself: what is entered in another field of the thing does not draw this one anew.
  const value = useVisit((state) => holderOf(state.record, kind, id)?.facts[field])
  const meta = useVisit((state) => holderOf(state.record, kind, id)?.meta[field])
  const key = fieldKey(kind, id, field)
  const conflict = useVisit((state) => conflictsOf(state.history).find((candidate) => candidate.key === key))
  const mayWrite = useMayWrite()
  return {
    value,
    meta,
    conflict,
    mayWrite,
    set: (value, look) => setFact(kind, id, field, value, look)
  }
}
