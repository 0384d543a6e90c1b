import { equipmentOf } from '../../record/equipment'
import type { VisitRecord } from '../../record/record'
import { judgeFarEnd } from './far-end'
import type { CableProblem, KnownCable } from './known-cable'
import { cableBetween, type Port } from './ports'

/** Whether each unit's mode fits the ports that its cables lead to. */
export function modeProblems(record: VisitRecord, cables: readonly KnownCable[]): CableProblem[] {
  return cables.flatMap(({ cable, a, b }): CableProblem[] => {
    if (!a || !b) return []
    const ends: [Port, Port][] = [
      [a, b],
      [b, a]
    ]
    return ends.flatMap(([mine, other]) => {
      const wrong = mine.end.thing === 'unit' ? wrongEnd(record, mine, other, cables) : null
      return wrong ? [{ ...wrong, cable: cable.id, unit: mine.end.id, outcome: 'breaks' }] : []
    })
  })
}

/** What is wrong with where a unit's port leads; null where nothing is. */
function wrongEnd(
  record: VisitRecord,
  mine: Port,
  other: Port,
  cables: readonly KnownCable[]
): Pick<CableProblem, 'code' | 'message' | 'remedy'> | null {
  const { role, mode } = record.units[mine.end.id]?.facts ?? {}
  if (mine.kind === 'internet' && (mode === 'access-point' || (role === 'access-point' && mode === undefined)))
    return {
      code: 'internet-port',
      message: `${mine.owner} is an access point, and its internet port is used: it would go on making a network of its own.`,
      remedy: 'LAN to LAN, and nothing in the internet port.'
    }
  const routes = role === 'router' && mode !== 'access-point' && mode !== 'bridge'
  if (routes && mine.kind === 'lan' && bringsInternet(record, other))
    return {
      code: 'modem-to-lan',
      message: `The internet comes into a LAN port of ${mine.owner}.`,
      remedy: 'Lead it to the port that is marked for the internet.'
    }
  const wanted = mine.kind === 'internet' ? 'internet' : role === 'gateway' && isLine(mine) && 'line'
  // Which kinds of port take one cable at all is told before.
  if (!wanted || cableBetween(mine.kind, other.kind) === null) return null
  const far = judgeFarEnd(record, other, wanted, cables)
  if (far.kind !== 'wrong') return null
  return {
    code: 'wrong-end',
    message: `${mine.owner}, ${mine.name}: ${far.message}.`,
    remedy:
      wanted === 'line' ? 'Lead it to the provider’s line.' : 'Lead it to the modem, the gateway or the provider’s box.'
  }
}

const isLine = ({ kind }: Port): boolean => kind === 'coax' || kind === 'fibre' || kind === 'telephone-line'

/** Whether the internet comes from a port: a modem's, or one in the wall that is no socket of the home's network. */
function bringsInternet(record: VisitRecord, { end, kind }: Port): boolean {
  if (end.thing === 'outlet') return kind !== 'socket'
  const led = end.thing === 'unit' || end.thing === 'stays' ? equipmentOf(record, end.id) : null
  return led?.unit?.facts.role === 'modem' || led?.stays?.facts.kind === 'modem'
}
