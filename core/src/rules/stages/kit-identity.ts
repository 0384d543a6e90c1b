import { type Home, type Verdict, aboutUnit, atUnit, breaks, holds, rule, unproven } from '../rule'
import type { KnownUnit } from '../../work/units/known-unit'
import { elsewhereNow, secretFor } from '../../record/record'
import { installs } from '../../record/installs'
import { listed } from '../../values/list'

/** Units that share a value with an earlier unit, by the later one's id. */
function twins(units: KnownUnit[], valueOf: (known: KnownUnit) => string | undefined): Map<string, KnownUnit> {
  const firstWith = new Map<string, KnownUnit>()
  const twinOf = new Map<string, KnownUnit>()
  for (const known of units) {
    const value = valueOf(known)
    if (value === undefined) continue
    const first = firstWith.get(value)
    if (first) twinOf.set(known.unit.id, first)
    else firstWith.set(value, known)
  }
  return twinOf
}

function judgeIdentity({ record, units }: Home): Verdict[] {
  if (units.length === 0 && installs(record))
    return [
      unproven('No unit is recorded.', 'Add a box or a unit here; or say under Brief why nothing was installed.', {
        stage: 'kit',
        kind: 'unit',
        id: 'new',
        field: 'model'
      })
    ]
  // Two boxes of one model differ in nothing else, so a serial counts as shared only within its model.
  const serialTwins = twins(units, ({ unit }) =>
    unit.facts.serial === undefined ? undefined : `${unit.facts.model} ${unit.facts.serial.toUpperCase()}`
  )
  const macTwins = twins(units, ({ unit }) => unit.facts.mac)
  return units.map((known) => {
    const { unit, model } = known
    const about = aboutUnit(known)
    if (!model) return unproven('Its model is not recorded.', 'Choose its model.', atUnit('kit', unit, 'model'), about)
    const serialTwin = serialTwins.get(unit.id)
    if (serialTwin)
      return breaks(
        `Its serial ${unit.facts.serial} is ${serialTwin.name}'s as well.`,
        'Read the label of this very unit again.',
        atUnit('kit', unit, 'serial'),
        about
      )
    const macTwin = macTwins.get(unit.id)
    if (macTwin)
      return breaks(
        `Its MAC address ${unit.facts.mac} is ${macTwin.name}'s as well.`,
        'Read the label of this very unit again.',
        atUnit('kit', unit, 'mac'),
        about
      )
    const missing = (['serial', 'mac'] as const).filter((field) => unit.facts[field] === undefined)
    if (missing.length) {
      return unproven(
        `Not recorded: ${listed(missing.map((field) => (field === 'mac' ? 'MAC address' : field)))}.`,
        'Read it from the label.',
        atUnit('kit', unit, missing[0]!),
        about
      )
    }
    const elsewhere = livesElsewhere(unit)
    if (elsewhere)
      return breaks(
        elsewhere,
        'Read the label again; if the unit really came from there, record the move.',
        atUnit('kit', unit, unit.elsewhere![0]!.by),
        about
      )
    const brought = unit.transfer ? ` Brought from another home: ${unit.transfer.reason}` : ''
    return holds(`${model.maker} ${model.name}, ${unit.facts.serial}, ${unit.facts.mac}.${brought}`, about)
  })
}

/** Where else a unit stands, in words; null where nowhere, or where it was brought from there. */
function livesElsewhere(unit: KnownUnit['unit']): string | null {
  const [found] = elsewhereNow(unit)
  if (!found) return null
  return `A unit with this ${found.by === 'mac' ? 'MAC address' : 'serial'} is recorded at another home ${found.sealed ? 'and live there' : 'in a visit that is open'} since ${found.since.slice(0, 10)}.`
}

function judgeLabel({ record, units }: Home): Verdict[] {
  const labelled = units.filter(({ model }) => model?.label.some((field) => field === 'key' || field === 'setup-code'))
  const purposesOf = ({ model }: KnownUnit) => [
    ...(model!.label.includes('key') ? (['label-key'] as const) : []),
    ...(model!.label.includes('setup-code') ? (['setup-code'] as const) : [])
  ]
  const byPurpose = (['label-key', 'setup-code'] as const).map((purpose) => ({
    purpose,
    twinOf: twins(labelled, ({ unit }) => secretFor(record, purpose, unit.id)?.assessed.print)
  }))
  return labelled.map((known) => {
    const { unit } = known
    const about = aboutUnit(known)
    for (const { purpose, twinOf } of byPurpose) {
      const twin = twinOf.get(unit.id)
      const words = purpose === 'label-key' ? 'default key' : 'setup code'
      if (twin)
        return breaks(
          `Its ${words} is the same as ${twin.name}'s: one of the two labels was read twice.`,
          "Read this unit's own label.",
          { stage: 'kit', kind: 'secret', id: unit.id, field: purpose },
          about
        )
    }
    const abroad =
      unit.transfer || unit.facts.stayed
        ? undefined
        : purposesOf(known).find((purpose) => secretFor(record, purpose, unit.id)?.assessed.usedElsewhere)
    if (abroad)
      return breaks(
        `Its ${abroad === 'label-key' ? 'default key' : 'setup code'} is recorded at another home as well.`,
        "Read this unit's own label; if the unit was brought from there, record the move.",
        { stage: 'kit', kind: 'secret', id: unit.id, field: abroad },
        about
      )
    const missing = purposesOf(known).filter((purpose) => !secretFor(record, purpose, unit.id))
    if (missing.length === 0) return holds('Its label is recorded.', about)
    return unproven(
      `From its label still to record: ${listed(missing.map((purpose) => (purpose === 'label-key' ? 'default key' : 'setup code')))}.`,
      'Read the label before the unit disappears behind furniture.',
      { stage: 'kit', kind: 'secret', id: unit.id, field: missing[0]! },
      about
    )
  })
}

export const kitIdentity = rule({
  id: 'kit-identity',
  name: 'Model, serial and MAC',
  stage: 'kit',
  level: 'must',
  minutes: 1,
  sparesUntouched: true,
  statement: 'Every networked unit has model, serial and a valid unicast MAC; no two units share either.',
  judge: judgeIdentity
})

export const kitLabel = rule({
  id: 'kit-label',
  name: 'Label',
  stage: 'kit',
  level: 'must',
  minutes: 2,
  sparesUntouched: true,
  needs: ['model'],
  statement:
    'The label of each unit is recorded from that unit: two units with the same default key or setup code break it.',
  judge: judgeLabel
})
