import { kindOf } from './entries/all'
import type { Placed } from './entry'
import type { VisitRecord } from './record'

/** A record before its first entry. */
export const emptyRecord: VisitRecord = {
  format: 'pasado.state/1',
  visit: {
    id: '',
    home: '',
    customer: '',
    technician: { id: '', name: '' },
    standard: { id: '', version: 1 },
    startedFrom: null,
    openedAt: ''
  },
  brief: { id: 'brief', facts: {}, meta: {}, addedSeq: 0, removedSeq: null },
  units: {},
  segments: {},
  pools: {},
  hosts: {},
  networks: {},
  secrets: {},
  secretsErased: false,
  choices: {},
  custody: null,
  answers: {},
  acknowledged: {},
  waivers: {},
  waits: {},
  notes: [],
  conflicts: [],
  review: null,
  pack: { madeDigest: null, madeAt: null, givenDigest: null, givenAt: null, how: null },
  signatures: { customer: null, technician: null },
  seal: null,
  lastSeq: 0
}

/**
 * The record after one more entry. Pure: the record given is not changed.
 * The server, the browser and the command line all use this one function.
 */
export function apply(record: VisitRecord, entry: Placed): VisitRecord {
  return { ...record, ...kindOf(entry.kind).apply(record, entry), lastSeq: entry.seq }
}

/** The record that a whole logbook amounts to. */
export function reduce(entries: Iterable<Placed>, from: VisitRecord = emptyRecord): VisitRecord {
  let record = from
  for (const entry of entries) record = apply(record, entry)
  return record
}
