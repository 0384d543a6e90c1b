import { adapterFault } from '../../work/units/adapter'
import { installs } from '../../record/installs'
import { elsewhereNow, secretFor } from '../../record/record'
import { contentsOf } from '../../work/units/boxes'
import { aboutUnit, atUnit, breaks, holds, unproven, type Home, type Rule, type Verdict, rule } from '../rule'
import { isMeshMember, type KnownUnit } from '../../work/units/known-unit'
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

function judgeComplete({ boxes, units, catalogue }: Home): Verdict[] {
  const verdicts = boxes.map((box): Verdict => {
    const contents = contentsOf(box, catalogue)
    const about = { id: box.id, name: contents?.title ?? 'a box' }
    const place = { stage: 'kit' as const, kind: 'item' as const, id: box.id, field: 'items' }
    if (!contents) return unproven('Its model or kit is not in the catalogue.', 'Choose the box again.', place, about)
    const open = contents.items.filter(({ item }) => !box.items[item])
    const odd = Object.entries(box.items).filter(([, one]) => one.state !== 'present')
    const bare = odd.find(([, one]) => one.done === undefined)
    if (bare)
      return breaks(
        `${bare[0]} is ${bare[1].state}, and nothing is said of what was done.`,
        'Say what was done about it.',
        place,
        about
      )
    if (open.length)
      return unproven(
        `Not looked at yet: ${listed(open.map(({ item, count }) => `${count} × ${item}`))}.`,
        'Tick what is in the box; say what is missing or damaged.',
        place,
        about
      )
    return holds(
      odd.length
        ? odd.map(([item, one]) => `${item} ${one.state}: ${one.done!.replace(/[.!?]*$/, '')}.`).join(' ')
        : `All ${contents.items.length} items are there.`,
      about
    )
  })
  for (const known of units) {
    const { unit } = known
    if (
      unit.facts.used ||
      unit.facts.stayed ||
      (unit.facts.box !== undefined && boxes.some(({ id }) => id === unit.facts.box))
    )
      continue
    verdicts.push(
      unproven(
        'It is new, and from no box of this visit.',
        'Say which box it came out of, or that it was used before.',
        atUnit('kit', unit, 'box'),
        aboutUnit(known)
      )
    )
  }
  return verdicts
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

function judgeFamily({ units }: Home): Verdict[] {
  const members = units.filter(isMeshMember)
  if (members.length < 2) return []
  const first = members[0]!
  const stranger = members.find(({ model }) => model!.family !== first.model!.family)
  if (stranger) {
    return [
      breaks(
        `${stranger.name} (${stranger.model!.maker} ${stranger.model!.name}) is of another family than ${first.name} (${first.model!.maker} ${first.model!.name}): they will not join.`,
        'Take a unit of the same family, or give it another role.',
        atUnit('kit', stranger.unit, 'model'),
        aboutUnit(stranger)
      )
    ]
  }
  const models = [...new Set(members.map(({ model }) => model!.name))]
  if (models.length === 1) return [holds(`All ${members.length} mesh members are ${models[0]}.`)]
  const mostMembers = Math.min(...members.map(({ model }) => model!.mesh!.members ?? Infinity))
  const limits = `at most ${mostMembers === Infinity ? 'any number of' : mostMembers} members, ${Math.min(...members.map(({ model }) => model!.mesh!.hops))} hops`
  return [
    {
      ...breaks(
        `One family, mixed models: ${listed(models)}. The weakest sets the limits: ${limits}.`,
        'Tell the customer, or use one model throughout.',
        atUnit('kit', members[1]!.unit, 'model')
      ),
      level: 'should'
    }
  ]
}

function judgeAdapter({ units }: Home): Verdict[] {
  return units.flatMap((known) => {
    const { unit, model } = known
    if (!model?.power || unit.facts.stayed) return []
    const { adapterPlug: plug, adapterVolts: volts, adapterAmps: amps } = unit.facts
    const wanted = `${model.power.plug}, ${model.power.volts} V, ${model.power.amps} A`
    const missing = (
      [
        ['plug', plug],
        ['volts', volts],
        ['amps', amps]
      ] as const
    ).find(([, value]) => value === undefined)
    if (missing)
      return unproven(
        `Its power adapter was not compared with the model's: ${wanted}.`,
        'Read what is printed on the adapter.',
        atUnit('kit', unit, { plug: 'adapterPlug', volts: 'adapterVolts', amps: 'adapterAmps' }[missing[0]]),
        aboutUnit(known)
      )
    const fault = adapterFault(model.power, unit.facts)
    const evidence = {
      adapterPlug: `Its adapter has the plug ${plug}.`,
      adapterVolts: `Its adapter gives ${volts} V.`,
      adapterAmps: `Its adapter gives only ${amps} A.`
    }
    if (fault)
      return breaks(
        `${evidence[fault]} The model wants ${wanted}.`,
        'Do not plug it in; find the right adapter.',
        atUnit('kit', unit, fault),
        aboutUnit(known)
      )
    return holds(`${plug}, ${volts} V, ${amps} A.`, aboutUnit(known))
  })
}

export const kitComplete = rule({
  id: 'kit-complete',
  name: 'Box complete',
  stage: 'kit',
  level: 'must',
  minutes: 3,
  statement: 'Every item of each box is present, or recorded missing or damaged with what was done.',
  judge: judgeComplete
})

export const kitAdapter = rule({
  id: 'kit-adapter',
  name: 'Power adapter',
  stage: 'kit',
  level: 'must',
  minutes: 2,
  statement:
    "Each unit's power adapter is its own: plug of the country, voltage the model's, current at least the model's.",
  judge: judgeAdapter
})

export const kitIdentity = rule({
  id: 'kit-identity',
  name: 'Model, serial and MAC',
  stage: 'kit',
  level: 'must',
  minutes: 1,
  statement: 'Every networked unit has model, serial and a valid unicast MAC; no two units share either.',
  judge: judgeIdentity
})

export const kitLabel = rule({
  id: 'kit-label',
  name: 'Label',
  stage: 'kit',
  level: 'must',
  minutes: 2,
  statement:
    'The label of each unit is recorded from that unit: two units with the same default key or setup code break it.',
  judge: judgeLabel
})

export const kitRole = rule({
  id: 'kit-role',
  name: 'Role',
  stage: 'kit',
  level: 'must',
  minutes: 1,
  statement: 'The role given to a unit is one its model can take.',
  judge: ({ units }) =>
    units.map((known) => {
      const { unit, model } = known
      const { role } = unit.facts
      if (role === undefined || !model)
        return unproven('It has no role yet.', 'Choose what it is here.', atUnit('kit', unit, 'role'), aboutUnit(known))
      if (model.roles.includes(role)) return holds(`${model.name} as ${role}.`, aboutUnit(known))
      return breaks(
        `${model.name} cannot be a ${role}.`,
        `Choose ${model.roles.join(' or ')}.`,
        atUnit('kit', unit, 'role'),
        aboutUnit(known)
      )
    })
})

export const kitFamily = rule({
  id: 'kit-family',
  name: 'Mesh family',
  stage: 'kit',
  level: 'must',
  minutes: 1,
  statement:
    "All mesh members are of one family; mixed models in it are at level should, and the weakest member's limits are shown.",
  judge: judgeFamily
})

export const kitReset = rule({
  id: 'kit-reset',
  name: 'Reset of a used unit',
  stage: 'kit',
  level: 'should',
  minutes: 4,
  statement: 'A used unit was factory-reset before it was configured.',
  judge: ({ units }) =>
    units
      .filter(({ unit }) => unit.facts.used === true)
      .map((known) => {
        const { unit } = known
        if (unit.facts.wasReset === true || unit.events.some(({ what }) => what === 'reset'))
          return holds('It was reset first.', aboutUnit(known))
        const say = unit.facts.wasReset === false ? breaks : unproven
        return say(
          'It was used before, and no factory reset is recorded.',
          'Reset it before you configure it.',
          atUnit('kit', unit, 'wasReset'),
          aboutUnit(known)
        )
      })
})

/** Rules of the Kit. */
export const kitRules: readonly Rule[] = [kitComplete, kitAdapter, kitIdentity, kitLabel, kitRole, kitFamily, kitReset]
