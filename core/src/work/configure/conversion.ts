import {
  hasEndAt,
  standing,
  thingsOf,
  type Pool,
  type Recorded,
  type Segment,
  type Unit,
  type VisitRecord
} from '../../record/record'
import { modelOf, type Catalogue, type Model } from '../../catalogue/model'
import { auditRecord } from '../addresses/home-audit'
import { formatIpv4, hasEnds, parseCidr, parseIpv4, type Range4 } from '../../values/ipv4'
import { poolHolds } from '../addresses/servers'

/** One step of making an access point of a router: what to do, what to see before going on, and how to get back in. */
export interface ConversionStep {
  id: 'join' | 'name' | 'address' | 'dhcp' | 'extras' | 'mode' | 'restart' | 'cable' | 'reach'
  do: string
  check: string
  ifLost: string
  /** True where the technician is cut off by it, and has to join again. */
  cuts: boolean
  done: boolean
}

/** A conversion, worked out: every value, and the order in which nobody is locked out. */
export interface Conversion {
  /** Where the old router answers now, by its label. */
  from: string | null
  segment: Segment
  address: string
  mask: string
  gateway: string
  steps: ConversionStep[]
}

/** The mask of a prefix as pages ask for it: 24 is 255.255.255.0. */
export function maskOf(prefix: number): string {
  return formatIpv4(prefix === 0 ? 0 : 2 ** 32 - 2 ** (32 - prefix))
}

/**
 * Works out how a router becomes an access point of the main network: its address by the school in force, and the safe order of
 * steps. A reason in words where something is missing for it.
 * @param school where fixed addresses go: outside the pool or inside it
 */
export function conversionOf(
  record: VisitRecord,
  catalogue: Catalogue,
  unit: Unit,
  school: 'outside' | 'inside'
): Conversion | { missing: string } {
  const main = mainRange(record)
  if ('missing' in main) return main
  const { segment, range, gateway } = main
  const hosts = standing(record.hosts)
  const own = hosts.find(
    ({ facts }) => facts.unit === unit.id && facts.segment === segment.id && facts.address !== undefined
  )
  const audit = auditRecord(record, school)
  // An access point at the main router's own address would take the home off the line.
  const ownProblem =
    own && ((audit.ofHost.get(own.id) ?? []).length > 0 || parseIpv4(own.facts.address!) === parseIpv4(gateway))
  const address = own && !ownProblem ? own.facts.address! : audit.suggestionFor.get(segment.id)
  if (address === undefined) return { missing: 'No address is free in the main range: make the pool smaller first.' }
  const model = modelOf(unit, catalogue)
  // Labels write it with or without the scheme in front.
  const from = unit.facts.pageAddress?.replace(/^https?:\/\//, '').replace(/\/.*$/, '') ?? null
  const laptopAt =
    freeBeside(
      range,
      address,
      [gateway, ...hosts.flatMap(({ facts }) => facts.address ?? [])],
      standing(record.pools).filter(({ facts }) => facts.segment === segment.id)
    ) ?? `an address of ${segment.facts.cidr!} that nothing else has`
  const values: ConversionValues = {
    from,
    address,
    mask: maskOf(range.prefix),
    gateway,
    laptopAt,
    ssid: standing(record.networks).find(({ facts }) => facts.use === 'main')?.facts.ssid,
    label: unit.facts
  }
  const done = stepsDone(record, unit, own, address)
  return {
    from,
    segment,
    address,
    mask: values.mask,
    gateway,
    steps: conversionSteps(values, model).map((step) => ({ ...step, done: done[step.id] }))
  }
}

/** The range that an old router joins, with its main router's own address; in words what is missing for it. */
function mainRange(record: VisitRecord): { segment: Segment; range: Range4; gateway: string } | { missing: string } {
  const segments = standing(record.segments)
  const segment =
    segments.find(({ facts }) => facts.use === 'home' && facts.cidr !== undefined) ??
    segments.find(({ facts }) => facts.cidr !== undefined)
  if (!segment) return { missing: 'Record the main router’s range first: every value follows from it.' }
  const range = parseCidr(segment.facts.cidr!)
  if ('problem' in range) return { missing: `The main range ${range.problem}.` }
  if (range.prefix > 30)
    return { missing: `A range of /${range.prefix} has no room for another unit: the main router needs a larger one.` }
  const gateway = segment.facts.gateway
  if (gateway === undefined) return { missing: 'Record the main router’s own address: it is the gateway of the range.' }
  return { segment, range, gateway }
}

/** Which steps the record shows to be done. */
function stepsDone(
  record: VisitRecord,
  unit: Unit,
  own: Recorded<'host'> | undefined,
  address: string
): Record<ConversionStep['id'], boolean> {
  const changed = Math.max(0, own?.meta.address?.seq ?? 0, unit.meta.dhcpServer?.seq ?? 0)
  return {
    join: false,
    name: false,
    address: own?.facts.address === address,
    dhcp: unit.facts.dhcpServer === 'off',
    extras: unit.facts.dhcpRelay === 'off' && unit.facts.secondaryAddress === 'off',
    mode: unit.facts.mode === 'access-point',
    restart: unit.events.some(({ what, seq }) => (what === 'restarted' || what === 'powered') && seq > changed),
    cable: standing(thingsOf(record, 'cable')).some((cable) => hasEndAt(cable, unit.id)),
    reach: Object.entries(record.answers).some(
      ([key, { answer }]) =>
        own !== undefined && key.startsWith('addr-reachable') && key.includes(own.id) && answer === 'yes'
    )
  }
}

/** What the steps of a conversion name. */
interface ConversionValues {
  from: string | null
  address: string
  mask: string
  gateway: string
  laptopAt: string
  /** The home's network name. */
  ssid: string | undefined
  label: Pick<Unit['facts'], 'defaultSsid' | 'mac'>
}

/** The steps in the order in which nobody is locked out. */
function conversionSteps(
  { from, address, mask, gateway, laptopAt, ssid, label }: ConversionValues,
  model: Model | undefined
): Omit<ConversionStep, 'done'>[] {
  const clash = from !== null && parseIpv4(from) !== null && parseIpv4(from) === parseIpv4(gateway)
  const at = from ?? 'the address on its label'
  const steps: Omit<ConversionStep, 'done'>[] = [
    {
      id: 'join',
      do: `Nothing in any of its ports. Join its own network${label.defaultSsid ? ` ${label.defaultSsid}` : ''}, mobile data off, and open ${at}.`,
      check: 'Its page shows its own model.',
      ifLost: 'By cable into a LAN port; else reset it by the pin and begin anew.',
      cuts: false
    },
    {
      id: 'name',
      do: `Network name ${ssid ?? 'of the home'} with the home’s passphrase; apply, and join it again under the new name.`,
      check: 'The page answers again.',
      ifLost: 'Forget the network on the phone, join the new name; else by cable.',
      cuts: true
    },
    {
      id: 'extras',
      do: 'DHCP relay off and secondary address off, on their own pages; apply each.',
      check: 'Each page, opened again, shows off.',
      ifLost: `The page is still at ${at}.`,
      cuts: false
    },
    {
      id: 'dhcp',
      do: model?.modeStopsDhcp
        ? 'Its mode switches the DHCP server off by itself: leave that to the mode.'
        : 'DHCP server off; apply. From now on it gives out no address: set one by hand on your laptop.',
      check: 'The page, opened again, shows off.',
      ifLost: `Give your laptop ${besideLabel(from)} with mask 255.255.255.0, and open ${at}.`,
      cuts: !model?.modeStopsDhcp
    },
    {
      id: 'address',
      do: `Own address ${address}, mask ${mask}, gateway ${gateway}; apply. The page is gone from here on: that is as it is to be.`,
      check: 'The old address answers no more.',
      ifLost: `Give your laptop ${laptopAt} with mask ${mask}, and open ${address}.`,
      cuts: true
    },
    ...(model?.roles.includes('access-point') && model.modeStopsDhcp
      ? [
          {
            id: 'mode' as const,
            do: 'Mode: access point; apply.',
            check: 'It says so on its page.',
            ifLost: `Open ${address} as above.`,
            cuts: true
          }
        ]
      : []),
    {
      id: 'restart',
      do: 'Restart it, and wait for its lamps.',
      check: 'They show that it runs.',
      ifLost: 'Pull its plug, count to ten, and in again.',
      cuts: true
    },
    {
      id: 'cable',
      do: 'LAN to LAN: from a LAN port of the main router to one of its LAN ports, nothing in the internet port.',
      check: 'A link comes up on both ends.',
      ifLost: 'Another cable, then another port.',
      cuts: false
    },
    {
      id: 'reach',
      do: `From the home’s network open ${address}.`,
      check: 'Its page answers there, and your address is from the main router.',
      ifLost: `Look in the main router’s list for its MAC${label.mac ? ` ${label.mac}` : ''}; else reset it by the pin and begin anew.`,
      cuts: false
    }
  ]
  if (clash)
    steps.splice(1, 0, {
      id: 'join',
      do: `It has the main router’s own address, ${gateway}: keep them apart until its address is changed.`,
      check: 'No cable between them.',
      ifLost: 'Pull the cable between them, then open the page again.',
      cuts: false
    })
  return steps
}

/**
 * An address for a laptop, as near as may be to a unit's: in its range, neither the network's nor the broadcast address nor
 * anything's that is recorded, outside the pools where there is room. Null where nothing is free.
 */
export function freeBeside(
  range: Range4,
  address: string,
  taken: readonly string[],
  pools: readonly Pool[]
): string | null {
  const own = parseIpv4(address)
  if (own === null) return null
  const held = new Set([own, ...taken.map(parseIpv4)])
  const usable = hasEnds(range) ? { first: range.first + 1, last: range.last - 1 } : range
  const isFree = (value: number) => value >= usable.first && value <= usable.last && !held.has(value)
  const inPool = (value: number) => pools.some((pool) => poolHolds(pool, formatIpv4(value)))
  const nearest = (fits: (value: number) => boolean): number | undefined => {
    for (let away = 1; away <= Math.min(MOST_AWAY, usable.last - usable.first); away++)
      for (const value of [own + away, own - away]) if (fits(value)) return value
    return undefined
  }
  const found = nearest((value) => isFree(value) && !inPool(value)) ?? nearest(isFree)
  return found === undefined ? null : formatIpv4(found)
}

/** So far from a unit's address one for a laptop is looked for. */
const MOST_AWAY = 70_000

/** An address beside that of a router which nothing else hangs on, in its own range of /24. */
function besideLabel(address: string | null): string {
  const number = address === null ? null : parseIpv4(address)
  if (number === null) return 'an address beside it'
  return (
    freeBeside({ first: number - (number % 256), last: number - (number % 256) + 255, prefix: 24 }, address!, [], []) ??
    'an address beside it'
  )
}

/** What each way of running the old router means for this home, side by side. */
export function modesCompared(record: VisitRecord): { what: string; router: string; accessPoint: string }[] {
  const name = standing(record.segments)[0]?.facts.cidr ?? 'the main range'
  return [
    { what: 'Networks', router: `two: ${name}, and one of its own behind it`, accessPoint: `one: ${name}` },
    { what: 'Translations (NAT) on the way out', router: 'two', accessPoint: 'one, the main router’s' },
    {
      what: 'Who gives addresses',
      router: 'the main router, and it for what hangs on it',
      accessPoint: 'the main router alone'
    },
    {
      what: 'Printers and screens',
      router: 'what hangs on it sees the main network; the main network does not see what hangs on it',
      accessPoint: 'everything sees everything'
    },
    { what: 'When it fails', router: 'a second place to look', accessPoint: 'one place to look' }
  ]
}
