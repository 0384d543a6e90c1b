import { reading } from './reads'
import type { Unit, VisitRecord } from './record'

type Units = VisitRecord['units']

/** The part of a record that tells which units there are. */
const ROSTER = 'units'

/**
 * A record that notes which of its parts are looked at: tables by name, units part by part, what is recorded of them field by field.
 * Whoever reads it takes it for the record.
 */
export const readThrough = (record: VisitRecord): VisitRecord =>
  through(record, (part) => part, noteAll, {
    units: () => {
      reading()?.parts.add(ROSTER)
      return unitsThrough(record.units)
    }
  })

/** That so much is looked at that it cannot be told part by part. */
export function noteAll(): void {
  const reads = reading()
  if (reads) reads.isAll = true
}

const tables = new WeakMap<Units, Units>()
const units = new WeakMap<Unit, Unit>()

/** The units of a record; the same as long as they are. */
function unitsThrough(of: Units): Units {
  let table = tables.get(of)
  if (!table)
    tables.set(of, (table = Object.fromEntries(Object.entries(of).map(([id, unit]) => [id, unitThrough(unit)]))))
  return table
}

function unitThrough(unit: Unit): Unit {
  let known = units.get(unit)
  if (!known) {
    const { id } = unit
    const facts = through(
      unit.facts,
      (field) => factName(id, field),
      () => reading()?.parts.add(partName(id, 'facts'))
    )
    known = through(unit, (part) => partName(id, part), noteAll, { facts: () => facts })
    units.set(unit, known)
  }
  return known
}

const partName = (id: string, part: string) => `${id} ${part}`
/** The name under which it is noted that something recorded of a unit is looked at. */
export const factName = (id: string, field: string) => `${id} facts ${field}`

/**
 * An object that notes which of its fields are looked at, those it does not have among them.
 * @param nameOf under which name a field is noted
 * @param noteWhole notes that all of its fields are looked at
 * @param instead what is given of some fields in the place of what is there; it notes for itself what is looked at
 */
function through<T extends object>(
  of: T,
  nameOf: (field: string) => string,
  noteWhole: () => void,
  instead: { [F in keyof T]?: () => T[F] } = {}
): T {
  const names = new Map<string | symbol, string>()
  // An empty object to stand for it: of what cannot change, nothing but itself could be given.
  return new Proxy({} as T, {
    get: (_, field) => {
      const other = instead[field as keyof T]
      if (other) return other()
      const reads = reading()
      if (reads) {
        let name = names.get(field)
        if (name === undefined) names.set(field, (name = nameOf(String(field))))
        reads.parts.add(name)
      }
      return Reflect.get(of, field) as unknown
    },
    has: (_, field) => {
      noteWhole()
      return Reflect.has(of, field)
    },
    ownKeys: () => {
      noteWhole()
      return Reflect.ownKeys(of)
    },
    getOwnPropertyDescriptor: (_, field) => {
      noteWhole()
      const known = Reflect.getOwnPropertyDescriptor(of, field)
      return known && { ...known, configurable: true }
    }
  })
}

/** Which parts of a record are not as they were in another, by the names under which they are noted. */
export function changedParts(before: VisitRecord, after: VisitRecord): ReadonlySet<string> {
  const changed = new Set<string>()
  for (const part of namesIn(before, after))
    if (part !== ROSTER && Reflect.get(before, part) !== Reflect.get(after, part)) changed.add(part)
  if (before.units === after.units) return changed
  if (Object.keys(before.units).join(' ') !== Object.keys(after.units).join(' ')) changed.add(ROSTER)
  for (const id of namesIn(before.units, after.units)) addChanged(changed, id, before.units[id], after.units[id])
  return changed
}

/** Adds what of a unit is not as it was; all that it has where it was not there, or is no more. */
function addChanged(changed: Set<string>, id: string, old: Unit | undefined, now: Unit | undefined): void {
  if (old === now) return
  for (const part of namesIn(old ?? {}, now ?? {}))
    if (!old || !now || Reflect.get(old, part) !== Reflect.get(now, part)) changed.add(partName(id, part))
  for (const field of namesIn(old?.facts ?? {}, now?.facts ?? {}))
    if (!old || !now || Reflect.get(old.facts, field) !== Reflect.get(now.facts, field))
      changed.add(factName(id, field))
}

const namesIn = (a: object, b: object): Set<string> => new Set([...Object.keys(a), ...Object.keys(b)])
