import { sameVersion, versionProblem } from '../../values/version'
import { auditRecord } from '../addresses/home-audit'
import { modelOf, type Catalogue, type Model } from '../../catalogue/model'
import { updateWork } from '../../catalogue/firmware-work'
import { readMac } from '../../values/mac'
import { standing, thingsOf, type Unit, type VisitRecord } from '../../record/record'
import { isMeshMember } from '../units/known-unit'
import type { Policy } from '../../policy/standard'

/** What of a unit is compared: by the dotted name under which its own page tells it. */
export const comparedNames = {
  'device.serial': 'Serial',
  'device.mac': 'MAC address',
  'device.firmware': 'Firmware',
  mode: 'Mode',
  'lan.address': 'Address',
  'dhcp.server': 'DHCP server',
  'dhcp.from': 'Pool from',
  'dhcp.to': 'Pool to',
  'dhcp.relay': 'DHCP relay',
  'lan.secondary': 'Secondary address',
  'wifi.ssid': 'Network name',
  'wifi.2.4.channel': 'Channel at 2.4 GHz',
  'wifi.5.channel': 'Channel at 5 GHz',
  'wifi.6.channel': 'Channel at 6 GHz'
} as const
export type ComparedName = keyof typeof comparedNames
type Values = Partial<Record<ComparedName, string>>

/** One value of a unit three times over: as it is wanted, as it is recorded, as the unit tells it. */
export interface ComparedRow {
  name: ComparedName
  label: string
  wanted: string | null
  recorded: string | null
  read: string | null
  /** Which of the three stands apart: the record from what the unit tells, the unit from what is wanted, or both; nothing where all that are known agree. */
  differs: 'record' | 'unit' | 'both' | null
}

const sameValue = (name: ComparedName, a: string, b: string): boolean => {
  if (name === 'device.firmware')
    return versionProblem(a) === null && versionProblem(b) === null ? sameVersion(a, b) : a === b
  if (name !== 'device.mac') return a === b
  try {
    return readMac({ text: a }).mac === readMac({ text: b }).mac
  } catch {
    return a === b
  }
}

/** What the record says of a unit, under the names its own page uses. */
export function recordedOf(record: VisitRecord, unit: Unit): Values {
  const { facts } = unit
  const host = standing(record.hosts).find((candidate) => candidate.facts.unit === unit.id)
  const pool = standing(record.pools).find((candidate) => candidate.facts.unit === unit.id)
  const channel = (band: string) => {
    const found = standing(thingsOf(record, 'radio')).find(
      (candidate) => candidate.facts.unit === unit.id && candidate.facts.band === band
    )?.facts.channel
    return found === undefined ? undefined : String(found)
  }
  return {
    'device.serial': facts.serial,
    'device.mac': facts.mac,
    'device.firmware': facts.firmwareAfter ?? facts.firmwareBefore,
    mode: facts.mode,
    'lan.address': host?.facts.address,
    'dhcp.server': facts.dhcpServer ?? (pool ? 'on' : undefined),
    'dhcp.from': pool?.facts.from,
    'dhcp.to': pool?.facts.to,
    'dhcp.relay': facts.dhcpRelay,
    'lan.secondary': facts.secondaryAddress,
    'wifi.ssid': nameOf(record, unit),
    'wifi.2.4.channel': channel('2.4'),
    'wifi.5.channel': channel('5'),
    'wifi.6.channel': channel('6')
  }
}

/** The name that a unit sends, by the record: its own as an extender, else the home's. */
function nameOf(record: VisitRecord, unit: Unit): string | undefined {
  const networks = standing(record.networks).filter(
    ({ facts }) => (facts.use ?? 'main') === 'main' && facts.ssid !== undefined
  )
  return (
    networks.find(({ facts }) => facts.extender === unit.id) ??
    networks.find(({ facts }) => facts.extender === undefined)
  )?.facts.ssid
}

/**
 * What a unit is wanted to be: the newest firmware it can reach, servers and relays off on a router made an access point, an address
 * that the audit finds nothing against, the home's name. Names without a wish are left out.
 */
export function wantedOf(record: VisitRecord, catalogue: Catalogue, policy: Policy, unit: Unit): Values {
  const model = modelOf(unit, catalogue)
  if (!model) return {}
  const wanted: Values = {}
  const runs = unit.facts.firmwareAfter ?? unit.facts.firmwareBefore
  if (runs !== undefined) wanted['device.firmware'] = updateWork(model, runs).path.at(-1) ?? runs
  const { role } = unit.facts
  if (role === 'access-point' && model.roles.includes('router'))
    Object.assign(wanted, { mode: 'access-point', 'dhcp.server': 'off', 'dhcp.relay': 'off', 'lan.secondary': 'off' })
  else if (role === 'router' && model.roles.includes('access-point')) wanted.mode = 'router'
  const address = addressWanted(record, policy, unit)
  if (address !== undefined) wanted['lan.address'] = address
  const pool = standing(record.pools).find(({ facts }) => facts.unit === unit.id)
  if (pool?.facts.from !== undefined && pool.facts.to !== undefined && wanted['dhcp.server'] !== 'off')
    Object.assign(wanted, { 'dhcp.server': 'on', 'dhcp.from': pool.facts.from, 'dhcp.to': pool.facts.to })
  const ssid = nameOf(record, unit)
  if (sendsName(unit, model) && ssid !== undefined) wanted['wifi.ssid'] = ssid
  const recorded = recordedOf(record, unit)
  for (const name of ['wifi.2.4.channel', 'wifi.5.channel', 'wifi.6.channel'] as const)
    if (recorded[name] !== undefined) wanted[name] = recorded[name]
  return wanted
}

/** The unit's own address where the audit finds nothing against it, else one that it would find nothing against. */
function addressWanted(record: VisitRecord, policy: Policy, unit: Unit): string | undefined {
  const host = standing(record.hosts).find(({ facts }) => facts.unit === unit.id)
  if (!host) return undefined
  const audit = auditRecord(record, policy.poolSchool)
  return (audit.ofHost.get(host.id) ?? []).length === 0
    ? host.facts.address
    : audit.suggestionFor.get(host.facts.segment ?? '')
}

/** Whether a unit sends the home's name. */
function sendsName(unit: Unit, model: Model): boolean {
  const { role } = unit.facts
  if (model.radios.length === 0) return false
  return role === 'router' || role === 'access-point' || role === 'extender' || isMeshMember({ model, unit })
}

/** Wanted, recorded and read side by side: what any of them names, in the order of the pages. */
export function compareUnit(record: VisitRecord, catalogue: Catalogue, policy: Policy, unit: Unit): ComparedRow[] {
  const [wanted, recorded, read] = [
    wantedOf(record, catalogue, policy, unit),
    recordedOf(record, unit),
    (unit.read?.values ?? {}) as Values
  ]
  return (Object.keys(comparedNames) as ComparedName[]).flatMap((name): ComparedRow[] => {
    const [wish, held, told] = [wanted[name], recorded[name], read[name]]
    // A name of the home's counts for a unit only where that unit sends it.
    if (told === undefined && (wish === undefined || (name === 'wifi.ssid' && wish === held))) return []
    return [
      {
        name,
        label: comparedNames[name],
        wanted: wish ?? null,
        recorded: held ?? null,
        read: told ?? null,
        differs: standsApart(name, wish, held, told)
      }
    ]
  })
}

/** Which of wanted, recorded and told stands apart. */
function standsApart(
  name: ComparedName,
  wish: string | undefined,
  held: string | undefined,
  told: string | undefined
): ComparedRow['differs'] {
  const apart = (a: string | undefined, b: string | undefined) =>
    a !== undefined && b !== undefined && !sameValue(name, a, b)
  if (told === undefined) return apart(wish, held) ? 'record' : null
  const recordApart = held === undefined || apart(held, told)
  if (!apart(wish, told)) return recordApart ? 'record' : null
  return recordApart && (held === undefined || apart(wish, held)) ? 'both' : 'unit'
}
