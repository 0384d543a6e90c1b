import { hasRole } from '../../record/roles'
import { modelOf, type Catalogue } from '../../catalogue/model'
import type { Folded } from '../../history/fold'
import { countingSlips, restsOnCable, restsOnFields, restsOnPresence, type Rests } from '../../history/stands'
import { isPresence, partsOf } from '../../record/keys'
import { staysName } from '../../record/equipment'
import {
  thingsOf,
  unitName,
  type Host,
  type Segment,
  type Stays,
  type Unit,
  type VisitRecord
} from '../../record/record'
import { wordsOf } from '../../values/plain'
import { exchangeOf, networksJoined, restsOfPlace, restsOnNetwork, restsOnStaying, runningAs } from './rests'

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
    { unit: unit.id, without: ['reset'], name },
    ...restsOfPlace(unit),
    ...exchangeOf(unit),
    ...restsOnFields('unit', unit.id, { mode: `the mode of ${name}` }, true),
    ...networks.flatMap((joined) => [
      ...countingSlips(restsOnNetwork(joined, true)),
      ...restsOnFields('network', joined.id, { segment: `the segment of ${joined.facts.ssid}` }, true)
    ]),
    ...segments.flatMap((id) => [
      ...countingSlips(restsOnRange(id)),
      ...Object.values(record.pools)
        .filter(({ facts }) => facts.segment === id)
        .flatMap((pool) => [
          ...countingSlips(
            restsOnFields('pool', pool.id, { from: 'the pool', to: 'the pool', unit: 'who serves the pool' }, true)
          ),
          restsOnPresence('pool', pool.id, 'the pool'),
          ...servedBy(record, pool.facts.unit)
        ])
    ]),
    ...Object.values(thingsOf(record, 'cable')).flatMap(({ id }) =>
      restsOnFields(
        'cable',
        id,
        { tagged: 'what VLANs a cable carries', untagged: 'what VLAN a cable has untagged' },
        true
      )
    ),
    ...Object.values(thingsOf(record, 'stays')).flatMap(servedByStaying)
  ]
}

/** What stays may give the addresses: as it was found, and not reset since. */
function servedByStaying(stays: Stays): Rests[] {
  const name = staysName(stays)
  return [
    { unit: stays.id, without: ['reset'], name },
    ...restsOnFields(
      'stays',
      stays.id,
      { givesAddresses: `what ${name} gives`, segment: `the segment of ${name}` },
      false
    ),
    restsOnPresence('stays', stays.id, name)
  ]
}

/** The range of a segment. */
const restsOnRange = (segment: string): Rests[] => [
  ...restsOnFields('segment', segment, { cidr: 'the range', vlan: 'the VLAN' }, true),
  restsOnPresence('segment', segment, 'the range')
]

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
    ['telephone', 'network-telephone', 'splitter', 'alarm'].includes(
      thingsOf(record, 'fitting')[end.id]?.facts.kind ?? ''
    )
  const ofLine = cables.filter(({ facts: { a, b } }) => isOfTelephone(a) || isOfTelephone(b))
  const led = ofLine.flatMap(({ facts: { a, b } }) => [a, b]).flatMap((end) => (end?.thing === 'unit' ? end.id : []))
  const carriers = Object.values(record.units).filter((unit) =>
    led.length ? led.includes(unit.id) : hasRole(unit, 'gateway', 'router', 'modem')
  )
  return [
    ...carriers.flatMap(runningAs),
    ...restsOnStaying(record),
    ...ofLine.flatMap(({ id }) => restsOnCable(id, 'the telephone’s cable', false))
  ]
}

/** What a device that rejoined rests on; which network it uses is not recorded. */
export const restsOfRejoined = ({ record }: Folded): Rests[] =>
  networksJoined(record).flatMap((network) => countingSlips(restsOnNetwork(network, true)))

/**
 * What it rests on that a name is gone: a reset brings it back, whoever names a network may give it again, and another name is not the one
 * that was listened for. The name a unit came with may be written up later, where it is of those that its model comes with.
 */
export const restsOfGone = ({ record, catalogue }: Folded & { catalogue: Catalogue }): Rests[] => [
  ...Object.values(record.units).flatMap((unit): Rests[] => {
    const { defaultSsid } = unit.facts
    const prefix = modelOf(unit, catalogue)?.defaultSsidPrefix?.toLowerCase()
    const isListenedFor = prefix !== undefined && defaultSsid?.toLowerCase().startsWith(prefix) === true
    return [
      { unit: unit.id, without: ['reset'], name: unitName(unit) },
      ...restsOnFields('unit', unit.id, { defaultSsid: `the name ${unitName(unit)} came with` }, !isListenedFor)
    ]
  }),
  ...restsOnFields('brief', 'brief', { oldSsid: 'the home’s old name' }, false),
  ...Object.values(record.networks).flatMap(({ id, facts }) =>
    restsOnFields('network', id, { ssid: `the name ${facts.ssid ?? 'of a network'}` }, true)
  )
]

/** What it rests on that a unit’s own page was reached: its address, the range that lies in, and the unit as it was set. */
export function restsOfReached({ record }: Folded, { id, facts }: Host): Rests[] {
  const unit = record.units[facts.unit ?? '']
  const segment = facts.segment
  return [
    ...restsOnFields('host', id, { address: 'its address', unit: 'whose address it is', segment: 'its segment' }, true),
    restsOnPresence('host', id, 'its address'),
    ...(unit
      ? [
          { unit: unit.id, without: ['reset'], name: unitName(unit) } satisfies Rests,
          ...exchangeOf(unit),
          ...restsOnFields('unit', unit.id, { mode: `the mode of ${unitName(unit)}` }, true)
        ]
      : []),
    ...(segment === undefined ? [] : restsOnRange(segment))
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
  segment: ['cidr', 'vlan', 'gateway', 'leaseHours', 'dns', 'dnsServers'],
  pool: ['from', 'to', 'unit', 'segment'],
  host: ['address', 'reserved'],
  radio: ['channel', 'widthMHz'],
  secret: ['wifi-passphrase', 'admin-password']
}

/** What is recorded of a cable and set on the pages of what it joins. */
const setOnPorts: ReadonlySet<string> = new Set(['tagged', 'untagged'])

/** What it rests on that every page was applied: every recorded setting, first values too, and that no unit was set otherwise since. */
export function restsOfApplied({ record, history }: Folded): Rests[] {
  const recorded = [...history.writes.keys()].flatMap((key): Rests[] => {
    const { kind, field } = partsOf(key)
    // What is taken out is to be taken off its page as well.
    if (isPresence({ field }) && Object.hasOwn(settings, kind)) return [{ key, first: true, name: `a ${kind}` }]
    return settings[kind]?.includes(field) || (kind === 'cable' && setOnPorts.has(field))
      ? [{ key, first: true, name: `a setting (${wordsOf(field)})` }]
      : []
  })
  const pressed = Object.values(record.units).map((unit): Rests => ({
    unit: unit.id,
    without: ['reset', 'settings-changed'],
    name: unitName(unit)
  }))
  return [...recorded, ...pressed]
}
