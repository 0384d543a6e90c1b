import type { Catalogue } from '../../catalogue/model'
import { recordSeen, type Folded } from '../../history/fold'
import { hasSeen, linesOfKinds } from '../../history/history'
import { restsOnCable, restsOnFields, restsOnPresence, type Rests } from '../../history/stands'
import { staysName } from '../../record/equipment'
import { secretKey } from '../../record/keys'
import {
  hasEndAt,
  thingsOf,
  unitName,
  type Cable,
  type Network,
  type Unit,
  type VisitRecord
} from '../../record/record'
import { upstreamOf } from '../configure/upstream'

/** Where a unit stands. */
const placeOf = (unit: Unit): Rests[] =>
  restsOnFields(
    'unit',
    unit.id,
    Object.fromEntries(['place', 'storey', 'x', 'y'].map((field) => [field, `the place of ${unitName(unit)}`])),
    false
  )

/** What somebody says who stood at a unit’s place. */
export const restsOfPlace = (unit: Unit): Rests[] => [
  { unit: unit.id, without: ['moved'], name: unitName(unit) },
  ...placeOf(unit)
]

/** What somebody says of how a unit hangs on the others: where it and all between it and the line stand, then or now. */
export const restsOfHanging = (folded: Folded, said: number, unit: Unit, catalogue: Catalogue): Rests[] =>
  wayThrough(folded, said, unit.id, catalogue).flatMap((on) => [
    ...restsOfPlace(on),
    restsOnPresence('unit', on.id, unitName(on))
  ])

/** The version a unit runs: one that is recorded later and differs from the one before it is an update at a time that nobody told. */
function versionOf(unit: Unit): Rests[] {
  const { firmwareBefore, firmwareAfter } = unit.facts
  const isTold = unit.events.some(({ what }) => what === 'updated')
  const first =
    !isTold && firmwareBefore !== undefined && firmwareAfter !== undefined && firmwareBefore !== firmwareAfter
  return restsOnFields('unit', unit.id, { firmwareAfter: `the firmware of ${unitName(unit)}` }, first)
}

/** The channels that a unit sends on. */
const channelsOf = (record: VisitRecord, equipment: string, name: string, first: boolean): Rests[] =>
  Object.values(thingsOf(record, 'radio'))
    .filter(({ facts }) => facts.unit === equipment)
    .flatMap(({ id, facts }) => {
      const channel = `the ${facts.band ?? '?'} GHz channel of ${name}`
      return restsOnFields('radio', id, { channel, widthMHz: channel }, first)
    })

/** Name, security and passphrase of a network. */
export function restsOnNetwork({ id, facts }: Network, first: boolean): Rests[] {
  const name = facts.ssid ?? 'the network'
  return [
    ...restsOnFields('network', id, { ssid: `the name ${name}`, security: `the security of ${name}` }, first),
    { key: secretKey(id, 'wifi-passphrase'), first, name: `the passphrase of ${name}` },
    restsOnPresence('network', id, name)
  ]
}

/** Networks that somebody joined who does not say which: the main ones, else all, those that were taken out since as well. */
export function networksJoined(record: VisitRecord, network?: string): Network[] {
  const all = Object.values(record.networks)
  if (network !== undefined) return all.filter(({ id }) => id === network)
  const main = all.filter(({ facts }) => (facts.use ?? 'main') === 'main')
  return main.length ? main : all
}

/** Kinds of lines after which the way from a unit to the line may be another. */
const wayKinds = new Set([
  'unit.set',
  'cable.set',
  'outlet.set',
  'fitting.set',
  'room.set',
  'wall.set',
  'opening.set',
  'storey.set',
  'brief.set',
  'thing.removed',
  'thing.restored'
] as const)

/** Units between a unit and the line, itself among them, nearest first. */
function wayOf(record: VisitRecord, unit: string, catalogue: Catalogue): string[] {
  const up = upstreamOf(record, catalogue)
  const way: string[] = []
  for (let at: string | undefined = unit; at !== undefined; at = up.get(at)?.through ?? undefined) way.push(at)
  return way
}

/** Units that something was found through, then or now: nobody wrote of what they hang on since, unknown to who looked, but where both are asked. */
export function wayThrough({ record, history }: Folded, proof: number, unit: string, catalogue: Catalogue): Unit[] {
  const now = wayOf(record, unit, catalogue)
  const isSame = linesOfKinds(history, wayKinds).every(({ seq }) => hasSeen(history, proof, seq))
  const then = isSame ? [] : wayOf(recordSeen(history, proof), unit, catalogue)
  return [...new Set([...now, ...then])].flatMap((id) => record.units[id] ?? [])
}

/** What a look at a unit’s lamps rests on. */
export function restsOfLamps({ record }: Folded, unit: Unit): Rests[] {
  const name = unitName(unit)
  const own = Object.values(record.networks).filter(
    ({ facts }) => facts.extender === undefined || facts.extender === unit.id
  )
  return [
    { unit: unit.id, without: ['powered', 'restarted', 'reset', 'moved', 'updated', 'settings-changed'], name },
    ...placeOf(unit),
    ...versionOf(unit),
    ...exchangeOf(unit),
    ...restsOnFields(
      'unit',
      unit.id,
      { role: `the role of ${name}`, alsoRole: `the role of ${name}`, mode: `the mode of ${name}` },
      false
    ),
    ...own.flatMap((network) => restsOnNetwork(network, false)),
    ...channelsOf(record, unit.id, name, false),
    ...Object.values(record.hosts)
      .filter(({ facts }) => facts.unit === unit.id)
      .flatMap(({ id }) => restsOnFields('host', id, { address: `the address of ${name}` }, false))
  ]
}

/** What stays and what a unit’s way to the line can go through; who gives addresses. */
const carries: ReadonlySet<string | undefined> = new Set([
  'router',
  'modem',
  'access-point',
  'mesh-node',
  'switch',
  // What it is nobody said: it may be any of these.
  undefined
])

/** Everything that stays and that a way can go through, taken out since as well: nobody draws which. */
export const restsOnStaying = (record: VisitRecord): Rests[] =>
  Object.values(thingsOf(record, 'stays'))
    .filter(({ facts }) => carries.has(facts.kind))
    .flatMap((stays) => [
      { unit: stays.id, without: ['reset', 'moved', 'updated'], name: staysName(stays) } satisfies Rests,
      ...restsOnFields(
        'stays',
        stays.id,
        Object.fromEntries(
          ['model', 'makeModel', 'place', 'storey', 'x', 'y', 'kind'].map((field) => [field, staysName(stays)])
        ),
        false
      ),
      ...channelsOf(record, stays.id, staysName(stays), true),
      restsOnPresence('stays', stays.id, staysName(stays)),
      {
        stood: stays.id,
        thing: 'stays',
        // A used unit that was turned into it stood there since it was recorded as that.
        line: Math.min(stays.addedSeq, record.units[stays.id]?.addedSeq ?? Infinity),
        name: staysName(stays)
      } satisfies Rests
    ])

/** What happened to units that a link or a measurement goes through, and where they stand. */
const carriedBy = (units: readonly Unit[]): Rests[] =>
  units.flatMap((unit): Rests[] => [
    { unit: unit.id, without: ['reset', 'moved', 'updated'], name: unitName(unit) },
    { stood: unit.id, thing: 'unit', line: unit.addedSeq, name: unitName(unit) },
    ...placeOf(unit),
    ...versionOf(unit),
    ...exchangeOf(unit)
  ])

/** What came in after something was found, and went again: the way may have led through it meanwhile. What was not needed never stood there. */
const cameAndWent = ({ units }: VisitRecord): Rests[] =>
  Object.values(units)
    .filter(({ removedSeq, facts }) => removedSeq !== null && facts.spare === undefined)
    .map((unit) => ({ stood: unit.id, thing: 'unit', line: unit.addedSeq, name: unitName(unit) }))

/** What the test of a member’s link rests on: it, all upstream of it, and the cables between them. */
export function restsOfTest(folded: Folded, proof: number, unit: Unit, catalogue: Catalogue): Rests[] {
  const way = wayThrough(folded, proof, unit.id, catalogue)
  return [
    ...carriedBy(way),
    ...cameAndWent(folded.record),
    ...cablesBetween(folded.record, way),
    ...restsOnStaying(folded.record)
  ]
}

/** Cables with both ends on a way; one that was recorded later is written up. */
function cablesBetween(record: VisitRecord, way: readonly Unit[]): Rests[] {
  return Object.values(thingsOf(record, 'cable'))
    .filter((cable) => way.filter(({ id }) => hasEndAt(cable, id)).length > 1)
    .flatMap(({ id }) => restsOnCable(id, 'a cable on the way', false))
}

/** What a measurement over the air or at a port rests on: the units it went through, all of them where it names none, and the network joined. */
export function restsOfMeasurement(
  folded: Folded,
  proof: number,
  { unit, overTheAir }: { unit: string | undefined; overTheAir: boolean },
  catalogue: Catalogue
): Rests[] {
  const { record } = folded
  const way = unit === undefined ? Object.values(record.units) : wayThrough(folded, proof, unit, catalogue)
  return [
    ...carriedBy(way),
    ...cameAndWent(record),
    ...way.flatMap((carrier) => channelsOf(record, carrier.id, unitName(carrier), true)),
    ...restsOnStaying(record),
    ...(overTheAir ? networksJoined(record).flatMap((network) => restsOnNetwork(network, true)) : [])
  ]
}

/** What a measurement at the source rests on: the units at the head of the home, and the cable to the line. */
export function restsOfSource({ record, history }: Folded, proof: number, catalogue: Catalogue): Rests[] {
  const headsIn = (folded: VisitRecord) =>
    [...upstreamOf(folded, catalogue).values()].filter(({ through }) => through === null).map(({ unit }) => unit.id)
  const heads = [...new Set([...headsIn(record), ...headsIn(recordSeen(history, proof))])].flatMap(
    (id) => record.units[id] ?? []
  )
  return [
    ...heads.flatMap(runningAs),
    ...heads.map((unit): Rests => ({ stood: unit.id, thing: 'unit', line: unit.addedSeq, name: unitName(unit) })),
    ...cameAndWent(record),
    ...restsOnStaying(record),
    ...Object.values(thingsOf(record, 'cable'))
      .filter((cable) => heads.some(({ id }) => hasEndAt(cable, id)) && leadsOut(cable.facts))
      .flatMap(({ id }) => restsOnCable(id, 'the cable to the line', false))
  ]
}

/** A cable with an end at no unit of ours: to the line, a wall socket, the provider’s box. */
const leadsOut = ({ a, b }: Cable['facts']): boolean => a?.thing !== 'unit' || b?.thing !== 'unit'

/** A unit that runs as it ran: not reset, not updated, the same device. */
export const runningAs = (unit: Unit): Rests[] => [
  { unit: unit.id, without: ['reset', 'updated'], name: unitName(unit) },
  ...versionOf(unit),
  ...exchangeOf(unit)
]

/** Another device in its place, or none. */
export const exchangeOf = (unit: Unit): Rests[] => [
  ...restsOnFields('unit', unit.id, { model: unitName(unit), serial: unitName(unit) }, false),
  restsOnPresence('unit', unit.id, unitName(unit))
]
