import { onceOf } from '../../record/once'
import type { Catalogue } from '../../catalogue/model'
import { standing, thingsOf, type Cable, type VisitRecord } from '../../record/record'
import { cableMbps, knownCables, longestM, where, type CableProblem } from './known-cable'
import { loopProblems } from './loops'
import { modeProblems } from './modes'
import { cableBetween, endKey, portOwners, type Port } from './ports'
import { powerProblems } from './power'

/** Checks every cable: ports, kinds, sides of a splitter, speeds, lengths, power, loops, DHCP servers joined. */
export const checkCabling = onceOf(check)

function check(record: VisitRecord, catalogue: Catalogue): CableProblem[] {
  const owners = portOwners(record, catalogue)
  const cables = knownCables(record, owners)
  const problems: CableProblem[] = []
  const taken = new Map<string, Cable>()
  const add = (
    code: CableProblem['code'],
    cable: Cable,
    unit: string | null,
    message: string,
    remedy: string,
    outcome: CableProblem['outcome'] = 'breaks'
  ) => problems.push({ code, cable: cable.id, unit, message, remedy, outcome })
  for (const cable of standing(thingsOf(record, 'cable')))
    if (cable.facts.a === undefined || cable.facts.b === undefined)
      add(
        'end-missing',
        cable,
        null,
        'Where one of its ends leads is not recorded.',
        'Say where both of its ends lead, or take the cable out.',
        'unproven'
      )
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
    if (cable.facts.lengthM !== undefined && cable.facts.lengthM > longestM[kind])
      add(
        'too-long',
        cable,
        null,
        `${cable.facts.lengthM} m is longer than the ${longestM[kind]} m such a cable may be.`,
        kind === 'network' ? 'Put a switch between, or use fibre.' : 'Shorten it.'
      )
    if (kind === 'network')
      speedOf(cable, a, b, record, (code, message, remedy, outcome) => add(code, cable, null, message, remedy, outcome))
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
  add: (code: CableProblem['code'], message: string, remedy: string, outcome?: CableProblem['outcome']) => void
): void {
  const can = cableMbps(cable.facts)
  const ends = [a.mbps, b.mbps, can].filter((value): value is number => value !== null && value > 0)
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
  const portsCan = [a.mbps, b.mbps].filter((value): value is number => value !== null)
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
