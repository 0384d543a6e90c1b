import { secretFor } from '../../record/record'
import { aboutUnit, atUnit, breaks, holds, listed, unproven, type Home, type KnownUnit, type Rule, type Verdict } from '../rule'

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

function judgeIdentity({ units }: Home): Verdict[] {
  // Two boxes of one model differ in nothing else, so a serial counts as shared only within its model.
  const serialTwins = twins(units, ({ unit }) => (unit.facts.serial === undefined ? undefined : `${unit.facts.model} ${unit.facts.serial.toUpperCase()}`))
  const macTwins = twins(units, ({ unit }) => unit.facts.mac)
  return units.map((known) => {
    const { unit, model } = known
    const about = aboutUnit(known)
    if (!model) return unproven('Its model is not recorded.', 'Choose its model.', atUnit('kit', unit, 'model'), about)
    const serialTwin = serialTwins.get(unit.id)
    if (serialTwin) return breaks(`Its serial ${unit.facts.serial} is ${serialTwin.name}'s as well.`, 'Read the label of this very unit again.', atUnit('kit', unit, 'serial'), about)
    const macTwin = macTwins.get(unit.id)
    if (macTwin) return breaks(`Its MAC address ${unit.facts.mac} is ${macTwin.name}'s as well.`, 'Read the label of this very unit again.', atUnit('kit', unit, 'mac'), about)
    const missing = (['serial', 'mac'] as const).filter((field) => unit.facts[field] === undefined)
    if (missing.length) {
      return unproven(`Not recorded: ${listed(missing.map((field) => (field === 'mac' ? 'MAC address' : field)))}.`, 'Read it from the label.', atUnit('kit', unit, missing[0]!), about)
    }
    return holds(`${model.maker} ${model.name}, ${unit.facts.serial}, ${unit.facts.mac}.`, about)
  })
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
      if (twin) return breaks(`Its ${words} is the same as ${twin.name}'s: one of the two labels was read twice.`, "Read this unit's own label.", { stage: 'kit', kind: 'secret', id: unit.id, field: purpose }, about)
    }
    const missing = purposesOf(known).filter((purpose) => !secretFor(record, purpose, unit.id))
    if (missing.length === 0) return holds('Its label is recorded.', about)
    return unproven(
      `From its label still to record: ${listed(missing.map((purpose) => (purpose === 'label-key' ? 'default key' : 'setup code')))}.`,
      'Read the label before the unit disappears behind furniture.', { stage: 'kit', kind: 'secret', id: unit.id, field: missing[0]! }, about
    )
  })
}

function judgeFamily({ units }: Home): Verdict[] {
  const members = units.filter(({ model, unit }) => model?.mesh && (unit.facts.role === 'router' || unit.facts.role === 'gateway' || unit.facts.role === 'node'))
  if (members.length < 2) return []
  const first = members[0]!
  const stranger = members.find(({ model }) => model!.family !== first.model!.family)
  if (stranger) {
    return [breaks(
      `${stranger.name} (${stranger.model!.maker} ${stranger.model!.name}) is of another family than ${first.name} (${first.model!.maker} ${first.model!.name}): they will not join.`,
      'Take a unit of the same family, or give it another role.', atUnit('kit', stranger.unit, 'model'), aboutUnit(stranger)
    )]
  }
  const models = [...new Set(members.map(({ model }) => model!.name))]
  if (models.length === 1) return [holds(`All ${members.length} mesh members are ${models[0]}.`)]
  const mostMembers = Math.min(...members.map(({ model }) => model!.mesh!.members ?? Infinity))
  const limits = `at most ${mostMembers === Infinity ? 'any number of' : mostMembers} members, ${Math.min(...members.map(({ model }) => model!.mesh!.hops))} hops`
  return [{ ...breaks(`One family, mixed models: ${listed(models)}. The weakest sets the limits: ${limits}.`, 'Tell the customer, or use one model throughout.', atUnit('kit', members[1]!.unit, 'model')), level: 'should' }]
}

/** Rules of the Kit. */
export const kitRules: Rule[] = [
  {
    id: 'kit-identity', stage: 'kit', level: 'must',
    says: 'Every networked unit has model, serial and a valid unicast MAC; no two units share either.',
    judge: judgeIdentity
  },
  {
    id: 'kit-label', stage: 'kit', level: 'must',
    says: 'The label of each unit is recorded from that unit: two units with the same default key or setup code break it.',
    judge: judgeLabel
  },
  {
    id: 'kit-role', stage: 'kit', level: 'must',
    says: 'The role given to a unit is one its model can take.',
    judge: ({ units }) =>
      units.map((known) => {
        const { unit, model } = known
        const { role } = unit.facts
        if (role === undefined || !model) return unproven('It has no role yet.', 'Choose what it is here.', atUnit('kit', unit, 'role'), aboutUnit(known))
        if (model.roles.includes(role)) return holds(`${model.name} as ${role}.`, aboutUnit(known))
        return breaks(`${model.name} cannot be a ${role}.`, `Choose ${model.roles.join(' or ')}.`, atUnit('kit', unit, 'role'), aboutUnit(known))
      })
  },
  {
    id: 'kit-family', stage: 'kit', level: 'must',
    says: "All mesh members are of one family; mixed models in it are at level should, and the weakest member's limits are shown.",
    judge: judgeFamily
  },
  {
    id: 'kit-reset', stage: 'kit', level: 'should',
    says: 'A used unit was factory-reset before it was configured.',
    judge: ({ units }) =>
      units.filter(({ unit }) => unit.facts.used === true).map((known) => {
        const { unit } = known
        if (unit.facts.wasReset === true || unit.events.some(({ what }) => what === 'reset')) return holds('It was reset first.', aboutUnit(known))
        const say = unit.facts.wasReset === false ? breaks : unproven
        return say('It was used before, and no factory reset is recorded.', 'Reset it before you configure it.', atUnit('kit', unit, 'wasReset'), aboutUnit(known))
      })
  }
]
