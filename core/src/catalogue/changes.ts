import { textOf } from '../values/plain'
import { sameJson } from '../values/canonical'
import type { Model } from './model'

/** One difference between two versions of a model. */
export interface ModelChange {
  section: keyof Model
  /** What it is about: a state, a port, a release …; empty for the section as a whole. */
  name: string
  kind: 'added' | 'taken out' | 'changed'
  /** The fields that differ, with the value before and after as text; empty for what was added or taken out. */
  fields: { field: string; before: string; after: string }[]
}

const keyOfRow: Partial<Record<keyof Model, (row: Record<string, unknown>) => string>> = {
  box: (row) => textOf(row.item),
  kits: (row) => textOf(row.id),
  ports: (row) => textOf(row.id),
  buttons: (row) => textOf(row.id),
  lamps: (row) => textOf(row.id),
  states: (row) => textOf(row.state),
  moves: (row) => `${textOf(row.from)} → ${textOf(row.to)}`,
  methods: (row) => textOf(row.id),
  prompts: (row) => textOf(row.id),
  radios: (row) => `${textOf(row.band)} GHz`,
  roles: (row) => textOf(row),
  label: (row) => textOf(row)
}

const words = (value: unknown): string => (value === undefined || value === null ? 'nothing' : textOf(value))

/** What differs from one version of a model to another, in the order of the model's sections. */
export function modelChanges(before: Model, after: Model): ModelChange[] {
  const changes: ModelChange[] = []
  const sections = [...new Set([...Object.keys(after), ...Object.keys(before)])] as (keyof Model)[]
  for (const section of sections) {
    if (section === 'version' || section === 'format' || sameJson(before[section], after[section])) continue
    if (section === 'firmware') {
      const row = (list: Model['firmware']['releases']) => list as unknown as Record<string, unknown>[]
      changes.push(
        ...rowChanges(section, row(before.firmware.releases), row(after.firmware.releases), (release) =>
          String(release.version)
        )
      )
      const { releases: _b, ...plainBefore } = before.firmware
      const { releases: _a, ...plainAfter } = after.firmware
      const fields = fieldsOf(plainBefore, plainAfter)
      if (fields.length) changes.push({ section, name: '', kind: 'changed', fields })
      continue
    }
    const keyOf = keyOfRow[section]
    if (keyOf)
      changes.push(
        ...rowChanges(
          section,
          (before[section] ?? []) as Record<string, unknown>[],
          (after[section] ?? []) as Record<string, unknown>[],
          keyOf
        )
      )
    else
      changes.push({
        section,
        name: '',
        kind: 'changed',
        fields: [{ field: section, before: words(before[section]), after: words(after[section]) }]
      })
  }
  return changes
}

/** Rows by their keys; a key that stands twice is told apart by its turn. */
function byKey(
  rows: readonly Record<string, unknown>[],
  keyOf: (row: Record<string, unknown>) => string
): Map<string, Record<string, unknown>> {
  const found = new Map<string, Record<string, unknown>>()
  for (const row of rows) {
    let key = keyOf(row)
    while (found.has(key)) key += ' again'
    found.set(key, row)
  }
  return found
}

function rowChanges(
  section: keyof Model,
  before: readonly Record<string, unknown>[],
  after: readonly Record<string, unknown>[],
  keyOf: (row: Record<string, unknown>) => string
): ModelChange[] {
  const [was, is] = [byKey(before, keyOf), byKey(after, keyOf)]
  const changes: ModelChange[] = []
  for (const [name, row] of is) {
    const old = was.get(name)
    if (old === undefined) changes.push({ section, name, kind: 'added', fields: [] })
    else if (!sameJson(old, row)) changes.push({ section, name, kind: 'changed', fields: fieldsOf(old, row) })
  }
  for (const name of was.keys()) if (!is.has(name)) changes.push({ section, name, kind: 'taken out', fields: [] })
  return changes
}

function fieldsOf(before: Record<string, unknown>, after: Record<string, unknown>): ModelChange['fields'] {
  return [...new Set([...Object.keys(before), ...Object.keys(after)])]
    .filter((field) => !sameJson(before[field], after[field]))
    .map((field) => ({ field, before: words(before[field]), after: words(after[field]) }))
}
