import { textOf, wordsOf } from '../values/plain'
import { formatMoment } from '../values/moment'
import { modelOf, type Catalogue } from '../catalogue/model'
import type { ThingKind } from '../record/facts'
import type { CableEnd } from '../record/things/cable'
import { equipmentOf } from '../record/equipment'
import { standing, thingsOf, type VisitRecord } from '../record/record'

/** What a field is called where its own name does not say it. */
const named: Readonly<Record<string, string>> = {
  customerName: 'customer',
  secondContact: 'second contact',
  plannedAt: 'planned for',
  accessLine: 'access line',
  speedDownMbps: 'paid for, down',
  speedUpMbps: 'paid for, up',
  providerSettings: 'provider’s settings',
  telephone: 'telephone through it',
  lineCarries: 'on the telephone line',
  lineTold: 'told of the line',
  outerMaterial: 'outer walls',
  outerMm: 'outer walls, thickness',
  innerMaterial: 'inner walls',
  innerMm: 'inner walls, thickness',
  bandNames: 'network names',
  oldSsid: 'network name before',
  keepName: 'old name kept',
  doubleNatReason: 'why two translations',
  noUnitReason: 'why nothing was installed',
  nameOnPaper: 'customer’s name on paper',
  transcription: 'name as it is said',
  providerReference: 'provider’s reference',
  mac: 'MAC address',
  defaultSsid: 'default network name',
  pageAddress: 'address of its page',
  spare: 'spare',
  stayed: 'stood here before',
  used: 'used before',
  wasReset: 'reset',
  adapterPlug: 'adapter, plug',
  adapterVolts: 'adapter, volts',
  adapterAmps: 'adapter, amperes',
  method: 'setup method',
  needsReady: 'ready for it',
  setUpPlace: 'set up at',
  place: 'stays at',
  moveRecorded: 'move recorded',
  heightM: 'height',
  x: 'place in the plan, across',
  y: 'place in the plan, down',
  cabled: 'by cable',
  cabinet: 'in a cabinet',
  surgeNote: 'surge protection',
  floorsReason: 'why no cable between storeys',
  dhcpServer: 'DHCP server',
  dhcpRelay: 'DHCP relay',
  secondaryAddress: 'secondary address',
  firmwareBefore: 'firmware before',
  firmwareAfter: 'firmware after',
  localAdminOnly: 'admin from inside only',
  remoteAdmin: 'remote administration',
  accountOwner: 'maker’s account',
  technicianRemoved: 'our accounts taken off',
  adminName: 'local administrator',
  recovery: 'recovery questions',
  pushButton: 'pairing button',
  autoChannels: 'chooses its channels by itself',
  hopDbm: 'signal of its hop',
  mainsMbps: 'rate over the mains',
  kit: 'kit',
  model: 'model',
  modelVersion: 'version of the model',
  cidr: 'range',
  leaseHours: 'lease',
  stays: 'sent by what stays',
  vlan: 'VLAN',
  tagged: 'VLANs carried tagged',
  untagged: 'VLAN carried untagged',
  dns: 'name servers',
  dnsServers: 'name servers by hand',
  from: 'pool from',
  to: 'pool to',
  behind: 'behind, by translation',
  ssid: 'name (SSID)',
  alsoRole: 'role beside it',
  preparedName: 'name to type in later',
  use: 'for',
  security: 'security',
  segment: 'lands in',
  isolated: 'apart from the home',
  extender: 'sent by',
  linkMbps: 'link came up at',
  lengthM: 'length',
  widthMHz: 'width',
  backhaul: 'backhaul',
  floorM: 'floor above ground',
  ceilingMaterial: 'ceiling',
  ceilingMm: 'ceiling, thickness',
  widthM: 'width',
  depthM: 'depth',
  listed: 'to have signal',
  complained: 'complained about',
  returns: 'goes to',
  powerClass: 'power class',
  ownPower: 'adapter of its own',
  cableTo: 'cable to',
  language: 'language of the pack',
  a: 'from',
  b: 'to',
  kind: 'kind',
  makeModel: 'make and model',
  givesAddresses: 'gives addresses'
}

const units: readonly (readonly [RegExp, string])[] = [
  [/Mbps$/, 'Mbit/s'],
  [/MHz$/, 'MHz'],
  [/Hours$/, 'h'],
  [/Mm$/, 'mm'],
  [/M$/, 'm'],
  [/Volts$/, 'V'],
  [/Amps$/, 'A'],
  [/^[xy]\d?$/, 'm'],
  [/^dbm$/, 'dBm']
]

/** A field's name in the words of the field. */
export function fieldWords(field: string): string {
  return named[field] ?? wordsOf(field)
}

/** The name of a thing of a record, as people speak of it; null where there is none. */
export function thingName(record: VisitRecord, id: string): string | null {
  const equipment = equipmentOf(record, id)
  if (equipment) return equipment.name
  for (const kind of ['storey', 'room', 'segment', 'network', 'fitting', 'device', 'host'] as const) {
    const facts = (
      thingsOf(record, kind) as Record<
        string,
        { facts: { name?: string; ssid?: string; kind?: string; cidr?: string } }
      >
    )[id]?.facts
    if (facts) return facts.name ?? facts.ssid ?? facts.cidr ?? facts.kind?.replaceAll('-', ' ') ?? kind
  }
  const box = record.boxes?.[id]
  return box ? `box of ${box.facts.model ?? 'a model'}` : null
}

const uuid = /^[0-9a-f]{8}-[0-9a-f-]{27}$/

/** A value of a field in words, with its unit; null where nothing is set. */
export function valueWords(
  record: VisitRecord,
  catalogue: Catalogue,
  kind: ThingKind,
  field: string,
  value: unknown,
  zone?: string
): string | null {
  if (value === undefined || value === null) return null
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value))
    return value.map((part) => valueWords(record, catalogue, kind, field, part, zone)).join(', ')
  if (typeof value === 'object') {
    const end = value as CableEnd
    return 'port' in end ? `${thingName(record, end.id) ?? end.thing}, ${end.port}` : JSON.stringify(value)
  }
  if (typeof value === 'number') {
    const unit = units.find(([pattern]) => pattern.test(field))?.[1]
    return `${Math.round(value * 100) / 100}${unit ? ` ${unit}` : ''}`
  }
  const text = textOf(value)
  return uuid.test(text)
    ? (thingName(record, text) ?? 'one that is gone')
    : textWords(record, catalogue, field, text, zone)
}

/** A text of a field in words. */
function textWords(record: VisitRecord, catalogue: Catalogue, field: string, text: string, zone?: string): string {
  if (field === 'model') {
    const model = [...catalogue.values()].find(({ id }) => id === text)
    return model ? `${model.maker} ${model.name}` : text
  }
  if (field === 'method') {
    const methods = standing(record.units).flatMap(({ facts }) => modelOf({ facts }, catalogue)?.methods ?? [])
    return methods.find(({ id }) => id === text)?.name ?? text
  }
  if (field === 'bands' || field === 'band') return `${text} GHz`
  if (/^\d{4}-\d\d-\d\dT/.test(text)) return formatMoment(text, zone)
  // Chosen words are written with hyphens; what people type stays as it is.
  return chosen.has(field) ? text.replaceAll('-', ' ') : text
}

const chosen = new Set([
  'reason',
  'accessLine',
  'providerSettings',
  'bandNames',
  'role',
  'mode',
  'security',
  'kind',
  'dns',
  'returns',
  'recovery',
  'pushButton',
  'spare',
  'remoteAdmin',
  'accountOwner',
  'outerMaterial',
  'innerMaterial',
  'material',
  'ceilingMaterial',
  'needsReady'
])
