import { hasSeen, linesOfKinds } from '../../history/history'
import { fieldKey, secretKey } from '../../record/keys'
import { kitIdentity, kitLabel } from './kit-identity'
import { adapterFault } from '../../work/units/adapter'
import { contentsOf } from '../../work/units/boxes'
import { aboutUnit, atUnit, breaks, holds, unproven, type Home, type Rule, type Verdict, rule } from '../rule'
import type { Catalogue, Role } from '../../catalogue/model'
import { alsoRoles } from '../../record/roles'
import { isMeshMember, type KnownUnit } from '../../work/units/known-unit'
import { listed } from '../../values/list'

/** What is set on a unit when it is configured. */
const configuredFields = [
  'mode',
  'dhcpServer',
  'dhcpRelay',
  'secondaryAddress',
  'localAdminOnly',
  'remoteAdmin',
  'pushButton',
  'adminName'
]

/** Kinds of lines that configure a unit whatever they say. */
const configuringKinds = new Set(['method.step', 'pairing.pressed'] as const)

/** The lines with which a unit was configured: a step of its method, a press of its pairing, a setting, a password of its own. */
function configuredAt({ history }: Home, unit: string): number[] {
  const steps = linesOfKinds(history, configuringKinds).flatMap(({ seq, body }) => (body.unit === unit ? [seq] : []))
  const keys = [...configuredFields.map((field) => fieldKey('unit', unit, field)), secretKey(unit, 'admin-password')]
  const set = keys.flatMap((key) => (history.writes.get(key) ?? []).map(({ seq }) => seq))
  return [...steps, ...set]
}

const hasAnySeen = (history: Home['history'], by: number, lines: readonly number[]): boolean =>
  lines.some((line) => hasSeen(history, by, line))

function judgeComplete({ boxes, units, catalogue }: Home): Verdict[] {
  const verdicts = boxes.map((box): Verdict => {
    const contents = contentsOf(box, catalogue)
    const about = { id: box.id, name: contents?.title ?? 'a box' }
    const place = { stage: 'kit' as const, kind: 'item' as const, id: box.id, field: 'items' }
    if (!contents) return unproven('Its model or kit is not in the catalogue.', 'Choose the box again.', place, about)
    const open = contents.items.filter(({ item }) => !box.items[item])
    const odd = Object.entries(box.items).filter(([, checked]) => checked.state !== 'present')
    const bare = odd.find(([, checked]) => checked.done === undefined)
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
        ? odd.map(([item, checked]) => `${item} ${checked.state}: ${checked.done!.replace(/[.!?]*$/, '')}.`).join(' ')
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

/** What a model can form a mesh with: its family; where it has none, units of its own kind. */
const familyOf = ({ model }: KnownUnit) => model!.family ?? model!.id

/** Whether a maker sells these models together in one box. */
function isOneSet(models: readonly string[], catalogue: Catalogue): boolean {
  const kits = [...catalogue.values()].flatMap((model) => model.kits ?? [])
  return kits.some(({ items }) => models.every((id) => items.some(({ unit }) => unit === id)))
}

function judgeFamily({ units, catalogue }: Home): Verdict[] {
  const members = units.filter(isMeshMember)
  if (members.length < 2) return []
  const first = members[0]!
  const stranger = members.find((member) => familyOf(member) !== familyOf(first))
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
  const models = [...new Map(members.map(({ model }) => [model!.id, model!])).values()]
  if (models.length === 1) return [holds(`All ${members.length} mesh members are ${models[0]!.name}.`)]
  const names = listed(models.map(({ name }) => name))
  const mostMembers = Math.min(...models.map(({ mesh }) => mesh!.members ?? Infinity))
  const limits = `at most ${mostMembers === Infinity ? 'any number of' : mostMembers} members, ${Math.min(...models.map(({ mesh }) => mesh!.hops))} hops`
  if (
    isOneSet(
      models.map(({ id }) => id),
      catalogue
    )
  )
    return [holds(`${names}: a set that its maker sells as one; ${limits}.`)]
  return [
    {
      ...breaks(
        `One family, mixed models: ${names}. The weakest sets the limits: ${limits}.`,
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
  sparesUntouched: true,
  needs: ['model'],
  statement:
    "Each unit's power adapter is its own: plug of the country, voltage the model's, current at least the model's.",
  judge: judgeAdapter
})

export const kitRole = rule({
  id: 'kit-role',
  name: 'Role',
  stage: 'kit',
  level: 'must',
  minutes: 1,
  sparesUntouched: true,
  statement: 'The role given to a unit is one its model can take.',
  judge: ({ units }) =>
    units.map((known) => {
      const { unit, model } = known
      const { role, alsoRole } = unit.facts
      if (role === undefined || !model)
        return unproven('It has no role yet.', 'Choose what it is here.', atUnit('kit', unit, 'role'), aboutUnit(known))
      const cannot = (what: Role, field: string) =>
        breaks(
          `${model.name} cannot be a ${what}.`,
          `Choose ${model.roles.join(' or ')}.`,
          atUnit('kit', unit, field),
          aboutUnit(known)
        )
      if (!model.roles.includes(role)) return cannot(role, 'role')
      if (alsoRole === undefined) return holds(`${model.name} as ${role}.`, aboutUnit(known))
      if (!model.roles.includes(alsoRole)) return cannot(alsoRole, 'alsoRole')
      if (!alsoRoles[role]?.includes(alsoRole))
        return breaks(
          `It is a ${role}, which is no ${alsoRole} as well.`,
          'Choose one of the two.',
          atUnit('kit', unit, 'alsoRole'),
          aboutUnit(known)
        )
      return holds(`${model.name} as ${role} and ${alsoRole}.`, aboutUnit(known))
    })
})

export const kitFamily = rule({
  id: 'kit-family',
  name: 'Mesh family',
  stage: 'kit',
  level: 'must',
  minutes: 1,
  needs: ['model', 'role'],
  statement:
    "All mesh members are of one family; mixed models in it are at level should, and the weakest member's limits are shown. Models that the maker sells as one set are no mixture.",
  judge: judgeFamily
})

export const kitReset = rule({
  id: 'kit-reset',
  name: 'Reset of a used unit',
  stage: 'kit',
  level: 'should',
  minutes: 4,
  sparesUntouched: true,
  statement: 'A used unit was factory-reset before it was configured.',
  judge: (home) =>
    home.units
      // What stayed from before was reset, or not, when it came.
      .filter(({ unit }) => unit.facts.used === true && !unit.facts.stayed)
      .map((known) => {
        const { unit } = known
        const resets = unit.events.filter(({ what }) => what === 'reset')
        const configured = configuredAt(home, unit.id)
        if (unit.facts.wasReset === true || resets.some(({ seq }) => !hasAnySeen(home.history, seq, configured)))
          return holds('It was reset first.', aboutUnit(known))
        if (resets.length)
          return unproven(
            'It was reset after it was configured, not before: nothing is recorded of it since.',
            'Configure it anew, or record that it was reset first as well.',
            atUnit('kit', unit, 'wasReset'),
            aboutUnit(known)
          )
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
