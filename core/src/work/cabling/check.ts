import type { Catalogue } from '../../catalogue/model'
import { poeBudget } from './poe-budget'
import { standing, thingsOf, type Cable, type VisitRecord } from '../../record/record'
import { judgeFarEnd } from './far-end'
import { cableBetween, endKey, portOwners, type Port, type PortOwner } from './ports'

/** What is wrong with a cable, or with what hangs on one. */
export interface CableProblem {
  code:
    | 'port-taken'
    | 'port-gone'
    | 'wrong-kind'
    | 'same-port'
    | 'splitter-side'
    | 'slow'
    | 'slower-than-paid'
    | 'speed-missing'
    | 'too-long'
    | 'over-budget'
    | 'over-port-limit'
    | 'no-poe'
    | 'loop'
    | 'two-dhcp'
    | 'internet-port'
    | 'modem-to-lan'
    | 'wrong-end'
  /** The cable it is shown at. */
  cable: string
  /** The unit that it is about, where it is about one. */
  unit: string | null
  says: string
  mend: string
  /** Unproven where a figure is missing only. */
  outcome: 'breaks' | 'unproven'
}

/** A cable with the ports it leads between; null where the model or the thing is no longer there. */
export interface KnownCable {
  cable: Cable
  a: Port | null
  b: Port | null
}

/** Least speed that a category carries over its length, in Mbit/s: TIA-568 and IEEE 802.3 (2.5 and 5GBASE-T, 10GBASE-T). */
const carries = {
  cat5: [{ toM: 100, mbps: 100 }],
  cat5e: [{ toM: 100, mbps: 2500 }],
  cat6: [
    { toM: 55, mbps: 10_000 },
    { toM: 100, mbps: 5000 }
  ],
  cat6a: [{ toM: 100, mbps: 10_000 }]
} as const
/** How long a cable of a kind may be, metres. */
const longest = { network: 100, telephone: 100, coax: 90, fibre: 300 } as const

/** What a network cable can carry over its length, in Mbit/s; null where its category is not known, 0 where it is too long. */
export function cableMbps({ category, lengthM = 1 }: Cable['facts']): number | null {
  if (category === undefined) return null
  return carries[category].find(({ toM }) => lengthM <= toM)?.mbps ?? 0
}

/** The cables of a record with their ports. */
export function knownCables(record: VisitRecord, owners: readonly PortOwner[]): KnownCable[] {
  const ports = new Map(owners.flatMap((owner) => owner.ports.map((port) => [endKey(port.end), port])))
  return standing(thingsOf(record, 'cable'))
    .filter(({ facts }) => facts.a !== undefined && facts.b !== undefined)
    .map((cable) => ({
      cable,
      a: ports.get(endKey(cable.facts.a!)) ?? null,
      b: ports.get(endKey(cable.facts.b!)) ?? null
    }))
}

const where = (port: Port) => `${port.owner}, ${port.name}`

/** Checks every cable: ports, kinds, sides of a splitter, speeds, lengths, power, loops, DHCP servers joined. */
export function checkCabling(record: VisitRecord, catalogue: Catalogue): CableProblem[] {
  const owners = portOwners(record, catalogue)
  const cables = knownCables(record, owners)
  const problems: CableProblem[] = []
  const taken = new Map<string, Cable>()
  const add = (
    code: CableProblem['code'],
    cable: Cable,
    unit: string | null,
    says: string,
    mend: string,
    outcome: CableProblem['outcome'] = 'breaks'
  ) => problems.push({ code, cable: cable.id, unit, says, mend, outcome })
  for (const { cable, a, b } of cables) {
    if (!a || !b) {
      add(
        'port-gone',
        cable,
        null,
        'One of its ports is no longer there: the thing was taken out, or its model has no such port.',
        'Take the cable out, or lead it to another port.'
      )
      continue
    }
    if (endKey(a.end) === endKey(b.end)) {
      add('same-port', cable, null, 'It begins and ends in one port.', 'Lead its other end elsewhere.')
      continue
    }
    for (const port of [a, b]) {
      if (taken.has(endKey(port.end)))
        add(
          'port-taken',
          cable,
          null,
          `${where(port)} holds two cables; a port takes one.`,
          'Take one of them out, or lead it to another port.'
        )
      else taken.set(endKey(port.end), cable)
    }
    const kind = cableBetween(a.kind, b.kind)
    if (kind === null || (cable.facts.kind !== undefined && cable.facts.kind !== kind)) {
      add(
        'wrong-kind',
        cable,
        null,
        `No ${cable.facts.kind ?? 'cable'}${cable.facts.kind ? ' cable' : ''} goes from ${where(a)} to ${where(b)}.`,
        'Look at the ports again.'
      )
      continue
    }
    const side = splitterSide(a, b)
    if (side) add('splitter-side', cable, null, side, 'Line to the wall, modem to the gateway, phone to the telephone.')
    if (cable.facts.lengthM !== undefined && cable.facts.lengthM > longest[kind])
      add(
        'too-long',
        cable,
        null,
        `${cable.facts.lengthM} m is longer than the ${longest[kind]} m such a cable may be.`,
        kind === 'network' ? 'Put a switch between, or use fibre.' : 'Shorten it.'
      )
    if (kind === 'network')
      speedOf(cable, a, b, record, (code, says, mend, outcome) => add(code, cable, null, says, mend, outcome))
  }
  problems.push(
    ...powerProblems(record, catalogue, cables),
    ...loopProblems(cables, record),
    ...modeProblems(record, cables)
  )
  return problems
}

function splitterSide(a: Port, b: Port): string | null {
  for (const [splitter, other] of [
    [a, b],
    [b, a]
  ] as const) {
    const right = {
      'splitter-line': 'telephone-line',
      'splitter-modem': 'telephone-line',
      'splitter-phone': 'telephone'
    }[splitter.kind as 'splitter-line']
    if (right === undefined) continue
    const wall = other.end.thing === 'outlet'
    if (splitter.kind === 'splitter-line' && !wall)
      return `The line side of the splitter leads to ${other.owner}, not to the wall.`
    if (splitter.kind !== 'splitter-line' && wall)
      return `The ${splitter.kind === 'splitter-modem' ? 'modem' : 'phone'} side of the splitter leads to the wall.`
    if (splitter.kind === 'splitter-modem' && other.kind !== 'telephone-line')
      return `The modem side of the splitter leads to ${where(other)}.`
    if (splitter.kind === 'splitter-phone' && other.kind !== 'telephone')
      return `The phone side of the splitter leads to ${where(other)}.`
  }
  return null
}

function speedOf(
  cable: Cable,
  a: Port,
  b: Port,
  record: VisitRecord,
  add: (code: CableProblem['code'], says: string, mend: string, outcome?: CableProblem['outcome']) => void
): void {
  const can = cableMbps(cable.facts)
  const ends = [a.mbps, b.mbps, can].filter((one): one is number => one !== null && one > 0)
  const most = ends.length ? Math.min(...ends) : null
  const { linkMbps } = cable.facts
  const paid = record.brief.facts.speedDownMbps
  if (linkMbps === undefined) {
    add(
      'speed-missing',
      `Nobody noted the speed that came up between ${a.owner} and ${b.owner}.`,
      'Look at the port’s lamp or the page, and note it.',
      'unproven'
    )
    return
  }
  const portsCan = [a.mbps, b.mbps].filter((one): one is number => one !== null)
  if (portsCan.length === 2 && linkMbps < Math.min(...portsCan))
    add(
      'slow',
      `It came up at ${linkMbps} Mbit/s; both ends can do ${Math.min(...portsCan)}.`,
      can !== null && can <= linkMbps
        ? `The cable is the cause: its category carries ${can} Mbit/s. Take a better one.`
        : 'Swap the cable first, then the port.'
    )
  else if (most !== null && linkMbps > most && can !== null && can < linkMbps)
    add(
      'too-long',
      `It came up at ${linkMbps} Mbit/s, which its category and length do not promise (${can}).`,
      'Take a better cable, before it fails in summer.',
      'unproven'
    )
  // Only what carries the internet has to keep up with what is paid for.
  if (paid !== undefined && linkMbps < paid && (a.kind === 'internet' || b.kind === 'internet'))
    add(
      'slower-than-paid',
      `It came up at ${linkMbps} Mbit/s; ${paid} Mbit/s are paid for.`,
      'Swap the cable, then look at both ports.'
    )
}

/** Powered ports, switch by switch. */
function powerProblems(record: VisitRecord, catalogue: Catalogue, cables: readonly KnownCable[]): CableProblem[] {
  return standing(record.units).flatMap((unit): CableProblem[] => {
    const model = catalogue.get(`${unit.facts.model ?? ''}@${unit.facts.modelVersion ?? 1}`)
    if (!model?.powerBudgetW) return []
    const loads = cables.flatMap(({ cable, a, b }) => {
      const mine = a?.end.id === unit.id ? a : b?.end.id === unit.id ? b : null
      const other = mine === a ? b : a
      const index = mine ? model.ports.findIndex(({ id }) => id === mine.end.port) : -1
      return mine && other && other.powerInClass !== null && index >= 0 ? [{ cable, other, port: index + 1 }] : []
    })
    const { findings, reservedW } = poeBudget({
      budgetW: model.powerBudgetW,
      ports: model.ports.map(({ powerOutW }, index) => {
        const load = loads.find(({ port }) => port === index + 1)
        return {
          port: index + 1,
          limitW: powerOutW ?? 0,
          ...(load ? { load: { device: load.other.owner, class: load.other.powerInClass! } } : {})
        }
      })
    })
    return findings.flatMap(({ code, port }): CableProblem[] => {
      const load = loads.find((one) => one.port === port) ?? loads.at(-1)
      if (!load) return []
      const name = unit.facts.name ?? model.name
      if (code === 'over-budget')
        return [
          {
            code,
            cable: load.cable.id,
            unit: unit.id,
            says: `${name} reserves ${reservedW} W for what hangs on it; it can give ${model.powerBudgetW} W in all.`,
            mend: 'Take one off, or feed it by an injector.',
            outcome: 'breaks'
          }
        ]
      if (code === 'over-port-limit')
        return [
          {
            code,
            cable: load.cable.id,
            unit: unit.id,
            says: `${load.other.owner} asks for more than port ${model.ports[load.port - 1]!.name} of ${name} may give.`,
            mend: 'Another port, or an injector.',
            outcome: 'breaks'
          }
        ]
      if (code === 'no-poe')
        return [
          {
            code,
            cable: load.cable.id,
            unit: unit.id,
            says: `Port ${model.ports[load.port - 1]!.name} of ${name} gives no power, and ${load.other.owner} needs it.`,
            mend: 'Lead it to a powered port.',
            outcome: 'breaks'
          }
        ]
      return []
    })
  })
}

/** What a cable joins into one network: LAN ports and sockets, over switches and routers' LAN sides. */
function lanOf(port: Port, record: VisitRecord): string | null {
  if (port.end.thing === 'outlet') return port.kind === 'socket' ? `outlet ${port.end.id}` : null
  if (port.kind !== 'lan' && port.kind !== 'internet') return null
  // An access point joins all of its ports; a router keeps its internet port apart.
  const unit = record.units[port.end.id]
  if (port.kind === 'internet')
    return unit?.facts.mode === 'access-point' || unit?.facts.role === 'access-point'
      ? `${port.end.thing} ${port.end.id}`
      : null
  return `${port.end.thing} ${port.end.id}`
}

/** The ends of a socket's cable in the wall are one. */
function wallPairs(record: VisitRecord): [string, string][] {
  return standing(thingsOf(record, 'outlet')).flatMap(({ id, facts }): [string, string][] =>
    facts.cableTo ? [[`outlet ${id}`, `outlet ${facts.cableTo}`]] : []
  )
}

function loopProblems(cables: readonly KnownCable[], record: VisitRecord): CableProblem[] {
  const parents = new Map<string, string>()
  const root = (one: string): string => {
    let at = one
    while (parents.has(at)) at = parents.get(at)!
    return at
  }
  for (const [a, b] of wallPairs(record)) if (root(a) !== root(b)) parents.set(root(a), root(b))
  const servers = new Map<string, string[]>()
  const problems: CableProblem[] = []
  const pools = new Set(standing(record.pools).map(({ facts }) => facts.unit))
  const serving = standing(record.units).filter(
    ({ id, facts }) => facts.dhcpServer === 'on' || (facts.dhcpServer === undefined && pools.has(id))
  )
  for (const unit of serving) servers.set(`unit ${unit.id}`, [unit.facts.name ?? 'a unit'])
  for (const { cable, a, b } of cables) {
    if (!a || !b) continue
    const [first, second] = [lanOf(a, record), lanOf(b, record)]
    if (first === null || second === null) continue
    const [from, to] = [root(first), root(second)]
    if (from === to) {
      problems.push({
        code: 'loop',
        cable: cable.id,
        unit: null,
        says: `It closes a loop: ${a.owner} and ${b.owner} are joined another way already. Everything would stand still.`,
        mend: 'Take one of the cables of the loop out.',
        outcome: 'breaks'
      })
      continue
    }
    const [mine, theirs] = [servers.get(from) ?? [], servers.get(to) ?? []]
    if (mine.length && theirs.length)
      problems.push({
        code: 'two-dhcp',
        cable: cable.id,
        unit: null,
        says: `It joins two DHCP servers on one network: ${[...mine, ...theirs].join(' and ')}.`,
        mend: 'Switch one of them off, or lead it to the internet port.',
        outcome: 'breaks'
      })
    parents.set(from, to)
    servers.set(to, [...mine, ...theirs])
  }
  return problems
}

/** Whether each unit's mode fits the ports that its cables lead to. */
function modeProblems(record: VisitRecord, cables: readonly KnownCable[]): CableProblem[] {
  return cables.flatMap(({ cable, a, b }): CableProblem[] => {
    if (!a || !b) return []
    return (
      [
        [a, b],
        [b, a]
      ] as const
    ).flatMap(([mine, other]): CableProblem[] => {
      if (mine.end.thing !== 'unit') return []
      const facts = record.units[mine.end.id]?.facts
      const isAccessPoint =
        facts?.mode === 'access-point' || (facts?.role === 'access-point' && facts.mode === undefined)
      const feeds = other.end.thing === 'unit' ? record.units[other.end.id]?.facts.role : undefined
      if (mine.kind === 'internet' && isAccessPoint)
        return [
          {
            code: 'internet-port',
            cable: cable.id,
            unit: mine.end.id,
            says: `${mine.owner} is an access point, and its internet port is used: it would go on making a network of its own.`,
            mend: 'LAN to LAN, and nothing in the internet port.',
            outcome: 'breaks'
          }
        ]
      const isRouter = facts?.role === 'router' && facts.mode !== 'access-point' && facts.mode !== 'bridge'
      if (
        isRouter &&
        mine.kind === 'lan' &&
        (feeds === 'modem' || (other.end.thing === 'outlet' && other.kind !== 'socket'))
      )
        return [
          {
            code: 'modem-to-lan',
            cable: cable.id,
            unit: mine.end.id,
            says: `The internet comes into a LAN port of ${mine.owner}.`,
            mend: 'Lead it to the port that is marked for the internet.',
            outcome: 'breaks'
          }
        ]
      const wanted =
        mine.kind === 'internet'
          ? 'internet'
          : facts?.role === 'gateway' &&
              (mine.kind === 'coax' || mine.kind === 'fibre' || mine.kind === 'telephone-line')
            ? 'line'
            : null
      // Which kinds of port take one cable at all is told before.
      const far =
        wanted === null || cableBetween(mine.kind, other.kind) === null
          ? null
          : judgeFarEnd(record, other, wanted, cables)
      if (far?.kind === 'wrong')
        return [
          {
            code: 'wrong-end',
            cable: cable.id,
            unit: mine.end.id,
            says: `${mine.owner}, ${mine.name}: ${far.says}.`,
            mend:
              wanted === 'line'
                ? 'Lead it to the provider’s line.'
                : 'Lead it to the modem, the gateway or the provider’s box.',
            outcome: 'breaks'
          }
        ]
      return []
    })
  })
}
