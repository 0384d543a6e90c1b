import type { Catalogue } from '../../catalogue/model'
import { hasSeen, recordSeen, type Folded } from '../../history/history'
import { restsOnFields, restsOnPresence, type Rests } from '../../history/stands'
import { partsOf, secretKey } from '../../record/keys'
import {
  hasEndAt,
  thingsOf,
  unitName,
  type Cable,
  type Host,
  type Network,
  type Segment,
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

/** The version a unit runs: one that is recorded later and differs from the one before it is an update at a time that nobody told. */
function versionOf(unit: Unit): Rests[] {
  const { firmwareBefore, firmwareAfter } = unit.facts
  const isTold = unit.events.some(({ what }) => what === 'updated')
  const first =
    !isTold && firmwareBefore !== undefined && firmwareAfter !== undefined && firmwareBefore !== firmwareAfter
  return restsOnFields('unit', unit.id, { firmwareAfter: `the firmware of ${unitName(unit)}` }, first)
}

/** The channels that a unit sends on. */
const channelsOf = (record: VisitRecord, unit: Unit, first: boolean): Rests[] =>
  Object.values(thingsOf(record, 'radio'))
    .filter(({ facts }) => facts.unit === unit.id)
    .flatMap(({ id, facts }) => {
      const name = `the ${facts.band ?? '?'} GHz channel of ${unitName(unit)}`
      return restsOnFields('radio', id, { channel: name, widthMHz: name }, first)
    })

/** Name, security and passphrase of a network. */
export function restsOnNetwork({ id, facts }: Network, first: boolean): Rests[] {
  const name = facts.ssid ?? 'the network'
  return [
    ...restsOnFields('network', id, { ssid: `the name ${name}`, security: `the security of ${name}` }, first),
    { key: secretKey(id, 'wifi-passphrase'), first, name: `the passphrase of ${name}` }
  ]
}

/** Networks that somebody joined who does not say which: the main ones, else all, those that were taken out since as well. */
export function networksJoined(record: VisitRecord, network?: string): Network[] {
  const all = Object.values(record.networks).filter(({ facts }) => facts.ssid !== undefined)
  if (network !== undefined) return all.filter(({ id }) => id === network)
  const main = all.filter(({ facts }) => (facts.use ?? 'main') === 'main')
  return main.length ? main : all
}

const wayKinds: ReadonlySet<string> = new Set([
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
])

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
  const isSame = [...history.lines.values()].every(
    ({ entry: { seq, kind } }) => !wayKinds.has(kind) || hasSeen(history, proof, seq)
  )
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
    ...restsOnFields('unit', unit.id, { role: `the role of ${name}`, mode: `the mode of ${name}` }, false),
    ...own.flatMap((network) => restsOnNetwork(network, false)),
    ...channelsOf(record, unit, false),
    ...Object.values(record.hosts)
      .filter(({ facts }) => facts.unit === unit.id)
      .flatMap(({ id }) => restsOnFields('host', id, { address: `the address of ${name}` }, false))
  ]
}

/** What happened to units that a link or a measurement goes through, and where they stand. */
const carriedBy = (units: readonly Unit[]): Rests[] =>
  units.flatMap((unit) => [
    { unit: unit.id, without: ['reset', 'moved', 'updated'], name: unitName(unit) } as const,
    ...placeOf(unit),
    ...versionOf(unit)
  ])

/** What the test of a member’s link rests on: it, all upstream of it, and the cables between them. */
export function restsOfTest(folded: Folded, proof: number, unit: Unit, catalogue: Catalogue): Rests[] {
  const way = wayThrough(folded, proof, unit.id, catalogue)
  return [...carriedBy(way), ...cablesBetween(folded.record, way)]
}

/** Cables with both ends on a way; one that was recorded later is written up. */
function cablesBetween(record: VisitRecord, way: readonly Unit[]): Rests[] {
  return Object.values(thingsOf(record, 'cable'))
    .filter((cable) => way.filter(({ id }) => hasEndAt(cable, id)).length > 1)
    .flatMap(({ id }) => [
      ...restsOnFields('cable', id, { a: 'a cable on the way', b: 'a cable on the way' }, false),
      restsOnPresence('cable', id, 'a cable on the way')
    ])
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
    ...way.map(({ id }) => restsOnPresence('unit', id, unitName(record.units[id]!))),
    ...way.flatMap((carrier) => channelsOf(record, carrier, true)),
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
    ...heads.flatMap((unit) => [
      { unit: unit.id, without: ['reset', 'updated'], name: unitName(unit) } as const,
      ...versionOf(unit),
      ...exchangeOf(unit)
    ]),
    ...Object.values(thingsOf(record, 'cable'))
      .filter((cable) => heads.some(({ id }) => hasEndAt(cable, id)) && leadsOut(cable.facts))
      .flatMap(({ id }) => [
        ...restsOnFields('cable', id, { a: 'the cable to the line', b: 'the cable to the line' }, false),
        restsOnPresence('cable', id, 'the cable to the line')
      ])
  ]
}

/** A cable with an end at no unit of ours: to the line, a wall socket, the provider’s box. */
const leadsOut = ({ a, b }: Cable['facts']): boolean => a?.thing !== 'unit' || b?.thing !== 'unit'

/** Another device in its place, or none. */
const exchangeOf = (unit: Unit): Rests[] => [
  ...restsOnFields('unit', unit.id, { model: unitName(unit), serial: unitName(unit) }, false),
  restsOnPresence('unit', unit.id, unitName(unit))
]

/** What somebody seen on a unit rests on: the unit, the network joined, and who serves addresses where it lands. */
export function restsOfPath(
  { record }: Folded,
  unit: Unit,
  network: string | undefined,
  segment: Segment | null
): Rests[] {
  const name = unitName(unit)
  const networks = networksJoined(record, network)
  const segments = [...new Set([segment?.id, ...networks.map(({ facts }) => facts.segment)])].filter(
    (id) => id !== undefined
  )
  return [
    { unit: unit.id, without: ['reset', 'moved'], name },
    ...placeOf(unit),
    ...restsOnFields('unit', unit.id, { mode: `the mode of ${name}` }, true),
    ...networks.flatMap((joined) => [
      ...restsOnNetwork(joined, true),
      ...restsOnFields('network', joined.id, { segment: `the segment of ${joined.facts.ssid}` }, true)
    ]),
    ...segments.flatMap((id) => [
      ...restsOnFields('segment', id, { cidr: 'the range' }, true),
      ...Object.values(record.pools)
        .filter(({ facts }) => facts.segment === id)
        .flatMap((pool) => [
          ...restsOnFields('pool', pool.id, { from: 'the pool', to: 'the pool', unit: 'who serves the pool' }, true),
          restsOnPresence('pool', pool.id, 'the pool'),
          ...servedBy(record, pool.facts.unit)
        ])
    ])
  ]
}

/** Whoever serves a pool loses it by a reset. */
function servedBy(record: VisitRecord, server: string | undefined): Rests[] {
  const unit = record.units[server ?? '']
  return unit ? [{ unit: unit.id, without: ['reset'], name: unitName(unit) }] : []
}

/** What a call rests on: where nothing tells which unit the line goes through, every gateway, router and modem; the cables of telephones and splitters. */
export function restsOfCall({ record }: Folded): Rests[] {
  const cables = Object.values(thingsOf(record, 'cable'))
  const isOfTelephone = (end: { thing: string; id: string } | undefined) =>
    end?.thing === 'fitting' &&
    ['telephone', 'splitter', 'alarm'].includes(thingsOf(record, 'fitting')[end.id]?.facts.kind ?? '')
  const ofLine = cables.filter(({ facts: { a, b } }) => isOfTelephone(a) || isOfTelephone(b))
  const led = ofLine.flatMap(({ facts: { a, b } }) => [a, b]).flatMap((end) => (end?.thing === 'unit' ? end.id : []))
  const carriers = Object.values(record.units).filter(({ id, facts }) =>
    led.length ? led.includes(id) : ['gateway', 'router', 'modem'].includes(facts.role ?? '')
  )
  return [
    ...carriers.flatMap((unit) => [
      { unit: unit.id, without: ['reset', 'updated'], name: unitName(unit) } as const,
      ...versionOf(unit),
      ...exchangeOf(unit)
    ]),
    ...ofLine.flatMap(({ id }) => [
      ...restsOnFields('cable', id, { a: 'the telephone’s cable', b: 'the telephone’s cable' }, false),
      restsOnPresence('cable', id, 'the telephone’s cable')
    ])
  ]
}

/** What a device that rejoined rests on; which network it uses is not recorded. */
export const restsOfRejoined = ({ record }: Folded): Rests[] =>
  networksJoined(record).flatMap((network) => restsOnNetwork(network, true))

/** What it rests on that a name is gone: a reset brings it back, and whoever names a network may give it again. */
export const restsOfGone = ({ record }: Folded): Rests[] => [
  ...Object.values(record.units).map((unit): Rests => ({ unit: unit.id, without: ['reset'], name: unitName(unit) })),
  ...Object.values(record.networks).flatMap(({ id, facts }) =>
    restsOnFields('network', id, { ssid: `the name ${facts.ssid ?? 'of a network'}` }, true)
  )
]

/** What it rests on that a unit’s own page was reached: its address, the range that lies in, and the unit as it was set. */
export function restsOfReached({ record }: Folded, { id, facts }: Host): Rests[] {
  const unit = record.units[facts.unit ?? '']
  const segment = facts.segment
  return [
    ...restsOnFields('host', id, { address: 'its address', unit: 'whose address it is' }, true),
    ...(unit
      ? [
          { unit: unit.id, without: ['reset'], name: unitName(unit) } satisfies Rests,
          ...restsOnFields('unit', unit.id, { mode: `the mode of ${unitName(unit)}` }, true)
        ]
      : []),
    ...(segment === undefined ? [] : restsOnFields('segment', segment, { cidr: 'the range' }, true))
  ]
}

/** What we set on units, by the kind it is recorded in: it stands on a page that has to be applied. */
const settings: Readonly<Record<string, readonly string[]>> = {
  unit: [
    'mode',
    'dhcpServer',
    'dhcpRelay',
    'secondaryAddress',
    'updates',
    'localAdminOnly',
    'remoteAdmin',
    'pushButton',
    'adminName'
  ],
  network: ['ssid', 'use', 'bands', 'security', 'segment', 'isolated', 'hidden', 'extender'],
  segment: ['cidr', 'gateway', 'leaseHours', 'dns', 'dnsServers'],
  pool: ['from', 'to', 'unit', 'segment'],
  host: ['address', 'reserved'],
  radio: ['channel', 'widthMHz'],
  secret: ['wifi-passphrase', 'admin-password']
}

/** What it rests on that every page was applied: every recorded setting, first values too, and that no unit was set otherwise since. */
export function restsOfApplied({ record, history }: Folded): Rests[] {
  const recorded = [...history.writes.keys()].flatMap((key): Rests[] => {
    const { kind, field } = partsOf(key)
    return settings[kind]?.includes(field) ? [{ key, first: true, name: `a setting (${wordsOf(field)})` }] : []
  })
  const pressed = Object.values(record.units).map((unit): Rests => ({
    unit: unit.id,
    without: ['reset', 'settings-changed'],
    name: unitName(unit)
  }))
  return [...recorded, ...pressed]
}

const wordsOf = (field: string) => field.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`).replaceAll('-', ' ')
