import { hasRole } from '../../record/roles'
import { proveSource } from './prove-source'
import { proveNamesGone, proveRejoined, proveVoice } from './prove-names'
import { judgePath } from '../../work/prove/path'
import { judgeRooms, measured, sourceOf } from '../../work/prove/rooms'
import { stalePath } from '../../work/prove/stale'
import { restsOfMeasurement, restsOfTest } from '../../work/prove/rests'
import { equipmentOf } from '../../record/equipment'
import { thingsOf } from '../../record/record'
import { proofOf, whyStale } from '../../history/proof'
import { installs } from '../../record/installs'
import { laterFigures } from '../../policy/standard'
import {
  aboutUnit,
  breaks,
  byFigures,
  holds,
  noLonger,
  unproven,
  type Home,
  type Place,
  type Rule,
  type Verdict,
  rule
} from '../rule'
import { isMeshMember, type KnownUnit } from '../../work/units/known-unit'
import { listed } from '../../values/list'
import { placeFinal } from './place'
import { startGoodLamp } from './start'
import { radioChannel } from './radio'
import { addrOneDhcp } from './address-servers'

const atUnitOf = (id: string, field: string): Place => ({ stage: 'prove', kind: 'unit', id, field })
const atTest = ({ unit }: KnownUnit): Place => atUnitOf(unit.id, 'test')

/** A unit that is joined to another over the air: a member of a mesh, or an extender. */
const isJoined = (known: KnownUnit) => isMeshMember(known) || hasRole(known.unit, 'extender')

/** The members of a home that test their links: none where there is but one. */
export function testedUnits(units: readonly KnownUnit[]): KnownUnit[] {
  const joined = units.filter(isJoined)
  return joined.length > 1 || joined.some(({ unit }) => !hasRole(unit, 'router', 'gateway')) ? joined : []
}

/** Units that carry the network farther: on each of them somebody has to be seen. */
export const extendingUnits = (units: readonly KnownUnit[]): KnownUnit[] =>
  units.filter(({ unit, model }) => Boolean(model?.radios.length) && hasRole(unit, 'node', 'extender', 'access-point'))

/** Units with ports for the customer's own devices: the only port of an access point is where it hangs on the rest. */
export const wiredUnits = (units: readonly KnownUnit[]): KnownUnit[] =>
  units.filter(({ unit: { facts }, model }) => {
    const lan = model?.ports.filter(({ kind }) => kind === 'lan').length ?? 0
    return facts.role !== 'modem' && lan > (facts.role === 'access-point' ? 1 : 0)
  })

/** What comes through a link of 100 Mbit/s, Mbit/s: its payload is about 94. */
const FALLEN_LEAST = 85
const FALLEN_MOST = 97

export const proveRooms = rule({
  id: 'prove-rooms',
  name: 'Room',
  stage: 'prove',
  level: 'must',
  minutes: 3,
  statement: 'Every room on the list has the signal, the speed and the latency that the standard wants.',
  afterAnywhere: [placeFinal, proveSource, startGoodLamp, radioChannel],
  figuresOfBefore: ['roomDbm', 'roomMbps', 'roomShare', 'addedMs'],
  restsOfBefore: (home, { subject, unit }, proof) => {
    const isMeasured = measured(home, home.catalogue, ({ at, room }) => at === 'room' && room === subject).length > 0
    const room = thingsOf(home.record, 'room')[subject ?? '']
    // What it was measured through has to be here still.
    const isGone = unit !== undefined && equipmentOf(home.record, unit) === null
    return isMeasured || room?.facts.complained || isGone
      ? null
      : restsOfMeasurement(home, proof, { unit, overTheAir: true }, home.catalogue)
  },
  judge: (home) => {
    // One whose model is not known may send.
    if (
      home.units.every(({ model }) => model?.radios.length === 0) &&
      !(home.units.length === 0 && installs(home.record))
    )
      return []
    const verdicts = judgeRooms(home, home.catalogue, home.policy)
    if (verdicts.length === 0)
      return [
        unproven('No room is on the list.', 'Draw the home’s rooms under Place, or name them here.', {
          stage: 'prove',
          kind: 'room',
          id: 'new',
          field: 'name'
        })
      ]
    return verdicts.map(({ room, outcome, message, short, wasProven }) => {
      const about = { id: room.id, name: room.facts.name ?? 'A room' }
      const place: Place = { stage: 'prove', kind: 'room', id: room.id, field: 'measured' }
      if (outcome === 'holds') return holds(message, about)
      if (outcome === 'breaks')
        return byFigures(
          ['short', ...short!.missing].join(', no '),
          short!.figures,
          breaks(message, 'Find the fault, or move a unit nearer; then measure again.', place, about)
        )
      const open = unproven(message, 'Measure signal, speed and latency there.', place, about)
      return wasProven ? noLonger(open) : open
    })
  }
})

export const provePath = rule({
  id: 'prove-path',
  name: 'Proof of path',
  stage: 'prove',
  level: 'must',
  minutes: 2,
  needs: ['model', 'role'],
  statement: 'On each extending device a client was seen, with an address of the right segment from the right server.',
  after: [placeFinal, startGoodLamp],
  afterAnywhere: [addrOneDhcp],
  judge: ({ record, history, units }) =>
    extendingUnits(units).map((known) => {
      const place = atUnitOf(known.unit.id, 'path')
      const { outcome, message, remedy } = judgePath(record, known.unit)
      const stale = stalePath({ record, history }, known.unit)
      if (outcome === 'holds' && stale)
        return noLonger(unproven(stale, 'Join it once more, and note what you see.', place, aboutUnit(known)))
      return outcome === 'holds'
        ? holds(message, aboutUnit(known))
        : (outcome === 'breaks' ? breaks : unproven)(message, remedy, place, aboutUnit(known))
    })
})

export const proveAfterMove = rule({
  id: 'prove-after-move',
  name: 'Test after the move',
  stage: 'prove',
  level: 'must',
  minutes: 2,
  needs: ['model', 'role'],
  statement: 'Mesh or link test after the last move of every member, and good.',
  after: [placeFinal, startGoodLamp],
  judge: (home) => testedUnits(home.units).map((known) => judgeTest(home, known))
})

/** The test of a member’s link, and whether it still tells how it is. */
function judgeTest(home: Home, known: KnownUnit): Verdict {
  const about = aboutUnit(known)
  const tests = known.unit.events.filter(({ what }) => what === 'tested-good' || what === 'tested-bad')
  const proof = proofOf(home.history, tests, ({ seq }) => restsOfTest(home, seq, known.unit, home.catalogue))
  if (!proof)
    return unproven(
      'Its link has not been tested.',
      'Run the family’s own test, or look at its link in the app, and note it.',
      atTest(known),
      about
    )
  const why = whyStale(proof)
  if (why) return noLonger(unproven(why, 'Test its link again as it stands now.', atTest(known), about))
  if (proof.heads.some(({ what }) => what !== proof.line.what))
    return unproven(
      'Two tested its link without knowing of each other: one found it good, the other not.',
      'Test its link once more.',
      atTest(known),
      about
    )
  if (proof.line.what === 'tested-bad')
    return breaks(
      'Its link was tested, and is not good.',
      'Move it nearer or cable it, then test again.',
      atTest(known),
      about
    )
  const moved = known.unit.events.some(({ what }) => what === 'moved')
  return holds(moved ? 'Its link was tested after the move, and is good.' : 'Its link was tested, and is good.', about)
}

export const proveWired = rule({
  id: 'prove-wired',
  name: 'Wired port',
  stage: 'prove',
  level: 'should',
  minutes: 2,
  sparesUntouched: true,
  needs: ['model'],
  statement: 'One wired port of every unit that has some was tested.',
  after: [startGoodLamp],
  judge: ({ record, history, catalogue, units }) => {
    const due = sourceOf({ record, history }, catalogue)?.down?.median ?? null
    return wiredUnits(units).map((known) => {
      const [newest] = measured(
        { record, history },
        catalogue,
        ({ at, unit }) => at === 'port' && unit === known.unit.id
      )
      const place = atUnitOf(known.unit.id, 'port')
      if (!newest?.down)
        return unproven(
          'None of its wired ports was tested.',
          'Put a laptop on one of its ports, and measure.',
          place,
          aboutUnit(known)
        )
      if (newest.down.median === 0)
        return breaks(
          'Nothing comes through its wired port.',
          'Another cable, then another port.',
          place,
          aboutUnit(known)
        )
      if (newest.stale) return noLonger(unproven(newest.stale, 'Test a port again.', place, aboutUnit(known)))
      const most = Math.max(0, ...known.model!.ports.filter(({ kind }) => kind === 'lan').map(({ mbps }) => mbps ?? 0))
      if (
        most >= 1000 &&
        due !== null &&
        due > FALLEN_MOST * 1.2 &&
        newest.down.median >= FALLEN_LEAST &&
        newest.down.median <= FALLEN_MOST
      )
        return unproven(
          `${Math.round(newest.down.median)} Mbit/s at a port that can do ${most}, of ${Math.round(due)} that the source gives: that is what a link gives that has fallen to 100.`,
          'Look at the speed of the link; swap the cable, and test it again.',
          place,
          aboutUnit(known)
        )
      return holds(`${Math.round(newest.down.median)} Mbit/s at a port of it.`, aboutUnit(known))
    })
  }
})

export const proveSettle = rule({
  id: 'prove-settle',
  name: 'Check when settled',
  stage: 'prove',
  level: 'should',
  minutes: 1,
  needs: ['model', 'role'],
  statement: 'A mesh of two or more: a check is booked for when it has settled.',
  afterAnywhere: [proveAfterMove],
  judge: ({ record, history, units, policy }) => {
    const members = units.filter(isMeshMember)
    if (members.length < 2) return []
    const hours = policy.settleH ?? laterFigures.settleH
    const booked = Object.values(record.checks ?? {}).filter(({ cancelled }) => !cancelled)
    const place: Place = { stage: 'prove', kind: 'answer', id: 'prove-settle', field: 'check' }
    if (booked.length === 0)
      return [
        unproven(
          `${listed(members.map(({ name }) => name))} may need a day to settle; no check is booked.`,
          `Book a check ${hours} h from now.`,
          place
        )
      ]
    const last = Math.max(...booked.map(({ to }) => Date.parse(to)))
    const started = Math.max(
      0,
      ...members.flatMap(({ unit }) =>
        unit.events
          .filter(({ what }) => what === 'tested-good' || what === 'tested-bad')
          // A clock that is set ahead must not put it off: the server had the line by then.
          .map(({ at, seq }) => Math.min(Date.parse(at), Date.parse(history.lines.get(seq)?.entry.received ?? at)))
      )
    )
    if (started && last < started + hours * 3_600_000)
      return [breaks(`The check is booked sooner than ${hours} h after the mesh was tested.`, 'Book it later.', place)]
    return [holds('A check is booked.')]
  }
})

/** Rules of Prove. */
export const proveRules: readonly Rule[] = [
  proveSource,
  proveRooms,
  provePath,
  proveAfterMove,
  proveWired,
  proveNamesGone,
  proveRejoined,
  proveVoice,
  proveSettle
]
