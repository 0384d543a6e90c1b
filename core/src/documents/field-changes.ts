import { lookWords } from '../catalogue/look'
import type { ThingKind } from '../record/facts'
import { secretFor, type AnyThing, type Unit, type VisitRecord } from '../record/record'
import type { Finding } from '../rules/evaluate'
import { sameVersion } from '../values/version'
import type { Change, Revision } from './change'
import { fieldWords, thingName, valueWords } from './field-words'

/** Fields that follow from others or are the visit's own affair. */
const unsaid = new Set([
  'modelVersion',
  'storey',
  'x',
  'y',
  'paper',
  'paperX',
  'paperY',
  'paperWidthM',
  'stayed',
  'box',
  'needsReady',
  'moveRecorded',
  'plannedAt',
  'unit'
])
/** Of a new thing its name is told already, and what it is not goes without saying. */
const toldByItself = (field: string, value: string | null) => field === 'name' || field === 'ssid' || value === 'no'

/** What is another now of one thing's fields; all that is said of it where it is new. */
export function fieldChanges(
  kind: ThingKind,
  twin: AnyThing | null,
  thing: AnyThing,
  before: Revision,
  after: Revision,
  mended: readonly Finding[]
): Change[] {
  const fields = new Set([...Object.keys(twin?.facts ?? {}), ...Object.keys(thing.facts)])
  return [...fields].flatMap((field): Change[] => {
    // A firmware that was updated before counts as what is found now: one line tells both.
    if (
      unsaid.has(field) ||
      (field === 'firmwareBefore' &&
        (thing.facts.firmwareAfter !== undefined || twin?.facts.firmwareAfter !== undefined))
    )
      return []
    const [a, b] = [
      valueWords(before.record, before.catalogue, kind, field, valueOf(twin, field), after.zone),
      valueWords(after.record, after.catalogue, kind, field, valueOf(thing, field), after.zone)
    ]
    if (
      a === b ||
      (field.startsWith('firmware') && a !== null && b !== null && sameVersion(a, b)) ||
      (!twin && toldByItself(field, b))
    )
      return []
    const meta = thing.meta[field]
    const why = mended
      .filter(({ place }) => place !== null && place.kind === kind && place.id === thing.id && place.field === field)
      .map(({ name, evidence }) => `${name}: ${evidence}`)
    if (meta && 'origin' in meta && meta.origin === 'label') why.push('from its label')
    return [
      {
        field,
        label: field === 'firmwareAfter' ? 'firmware' : fieldWords(field),
        before: a,
        after: b,
        by: meta ? { name: meta.by.name, at: meta.at } : null,
        why
      }
    ]
  })
}

/** What runs on a unit: what it was updated to, else what it came with. */
function valueOf(thing: AnyThing | null, field: string): unknown {
  return field === 'firmwareAfter' ? (thing?.facts.firmwareAfter ?? thing?.facts.firmwareBefore) : thing?.facts[field]
}

const lampsOf = (unit: Unit | undefined): string | null =>
  unit?.sightings
    .at(-1)
    ?.lamps.map((look) => `${look.lamp} ${lookWords(look)}`)
    .join('; ') ?? null

/** What of a unit is told beside its fields: its lamps, and how far it was moved. */
export function unitExtras(twin: Unit | undefined, unit: Unit, before: Revision, after: Revision): Change[] {
  const found: Change[] = []
  const [a, b] = [lampsOf(twin), lampsOf(unit)]
  const seen = unit.sightings.at(-1)
  if (a !== b && b !== null)
    found.push({
      field: 'lamps',
      label: 'lamps seen last',
      before: a,
      after: b,
      by: seen ? { name: seen.by.name, at: seen.at } : null,
      why: []
    })
  if (
    twin?.facts.x !== undefined &&
    twin.facts.y !== undefined &&
    unit.facts.x !== undefined &&
    unit.facts.y !== undefined
  ) {
    const [from, to] = [
      thingName(before.record, twin.facts.storey ?? ''),
      thingName(after.record, unit.facts.storey ?? '')
    ]
    const metres = Math.hypot(unit.facts.x - twin.facts.x, unit.facts.y - twin.facts.y)
    if (from !== to || metres >= 0.5)
      found.push({
        field: 'x',
        label: 'moved in the plan',
        before: from,
        after: `${to ?? ''}${to ? ', ' : ''}${Math.round(metres * 10) / 10} m away`,
        by: unit.meta.x ? { name: unit.meta.x.by.name, at: unit.meta.x.at } : null,
        why: []
      })
  }
  return found
}

/** Whether a passphrase is another one; what it is, nobody is told. */
export function passphraseChange(network: string, stood: boolean, before: VisitRecord, after: VisitRecord): Change[] {
  const now = secretFor(after, 'wifi-passphrase', network)
  if (!now || !stood) return []
  const sameVisit = before.visit.id === after.visit.id
  const kept = Object.values(after.secrets).filter(
    ({ purpose, id }) => purpose === 'wifi-passphrase' && id === network
  ).length
  const was = secretFor(before, 'wifi-passphrase', network)
  const other = sameVisit ? was?.ref !== now.ref : kept > 1
  return other
    ? [
        {
          field: 'passphrase',
          label: 'passphrase',
          before: was ? '••••••••' : null,
          after: 'another one',
          by: { name: now.by.name, at: now.at },
          why: []
        }
      ]
    : []
}
