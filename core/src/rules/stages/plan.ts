import { isCabled } from '../../work/configure/cabled'
import { roomAt } from '../../work/plan/home-plan'
import { apart, figure, hangingMembers, inPlan, unplacedMembers } from './in-plan'
import { placeOutlet } from './place-outlet'
import { cabledOrSeen, eachHop, joinsIn } from './hops-in-plan'
import { ruleKey, standing } from '../../record/record'
import {
  aboutUnit,
  atUnit,
  breaks,
  byFigures,
  holds,
  noLonger,
  unproven,
  type Home,
  type Rule,
  type Verdict,
  rule
} from '../rule'
import { hasSeen } from '../../history/history'
import { signalRead } from './signal-read'
import { isMeshMember, type KnownUnit } from '../../work/units/known-unit'
import { seenInPlace, staleSight } from './seen-in-place'

function judgeClear(home: Home): Verdict[] {
  const found = inPlan(home)
  const troubles = standing(home.record.troubles ?? {})
  const least = figure(home, 'clearM')
  const unseen = found.unplaced
    .filter(({ unit, model }) => unit.facts.cabinet === true || (model?.radios.length ?? 0) > 0)
    .flatMap((known) => (known.unit.facts.cabinet ? [shutIn(known)] : seenInPlace(home, 'place-clear', known)))
  const seen = found.placed.flatMap(({ known, at }): Verdict | Verdict[] => {
    const about = aboutUnit(known)
    if (known.unit.facts.cabinet) return shutIn(known)
    const near = troubles
      .map(({ facts }) => ({
        facts,
        far:
          facts.storey === at.storey && facts.x !== undefined && facts.y !== undefined
            ? apart(at, { x: facts.x, y: facts.y })
            : Infinity
      }))
      .sort((a, b) => a.far - b.far)[0]
    if (near && near.far < least)
      return byFigures(
        `near a ${near.facts.kind ?? 'trouble'}`,
        [{ name: 'm too near', value: least - near.far, better: 'less' }],
        breaks(
          `${near.far.toFixed(1)} m from a ${(near.facts.kind ?? 'trouble').replaceAll('-', ' ')}; at least ${least} m is wanted.`,
          'Move it, or the other.',
          atUnit('place', known.unit, 'x'),
          about
        )
      )
    // No plan tells of the cabinet around it, nor of what stands before it.
    if (known.unit.facts.cabinet === undefined && (known.model?.radios.length ?? 0) > 0)
      return seenInPlace(home, 'place-clear', known, {
        evidence: 'Whether it stands in a cabinet or behind something large nobody has said.',
        remedy: 'Look, and say so by one press.'
      })
    return holds(
      near && near.far < Infinity ? `In the open, ${near.far.toFixed(1)} m from the nearest trouble.` : 'In the open.',
      about
    )
  })
  return [...seen, ...unseen]
}

const shutIn = (known: KnownUnit): Verdict =>
  breaks(
    'It stands in a cabinet, which keeps signal in and heat as well.',
    'Take it out into the open.',
    atUnit('place', known.unit, 'cabinet'),
    aboutUnit(known)
  )

export const placeClear = rule({
  id: 'place-clear',
  name: 'In the open',
  stage: 'place',
  level: 'should',
  minutes: 3,
  sparesUntouched: true,
  needs: ['model'],
  statement:
    'Not in a cabinet nor behind a large object; distance to each listed source of trouble at least the figure of the standard.',
  judge: judgeClear
})

export const placeHops = rule({
  id: 'place-hops',
  name: 'Wireless hops',
  stage: 'place',
  level: 'must',
  minutes: 8,
  needs: ['model', 'role'],
  statement: "Wireless hops from the router within the model's limit.",
  judge: (home) =>
    eachHop(home, 'place-hops', (hop, known) => {
      const most = Math.min(known.model?.mesh?.hops ?? Infinity, figure(home, 'mostHops'))
      if (hop.hops <= most)
        return holds(
          `${hop.hops} wireless ${hop.hops === 1 ? 'hop' : 'hops'}, from ${hop.from.name}; the limit is ${most}.`,
          aboutUnit(known)
        )
      return byFigures(
        'too many',
        [{ name: 'hops above the limit', value: hop.hops - most, better: 'less' }],
        breaks(
          `${hop.hops} wireless hops from the router; the limit is ${most}.`,
          'Cable it, or place it nearer.',
          atUnit('place', known.unit, 'x'),
          aboutUnit(known)
        )
      )
    })
})

export const placeSpacing = rule({
  id: 'place-spacing',
  name: 'Length of a hop',
  stage: 'place',
  level: 'should',
  minutes: 8,
  needs: ['model', 'role'],
  statement: 'Each wireless hop at most the length of the standard, or its measured signal at or above the figure.',
  judge: (home) =>
    eachHop(home, 'place-spacing', (hop, known, at) => {
      const [most, least] = [figure(home, 'mostHopM'), figure(home, 'leastHopDbm')]
      const about = aboutUnit(known)
      const words = `${hop.metres.toFixed(1)} m from ${hop.from.name}`
      if (hop.metres <= most) return holds(`${words}.`, about)
      const place = atUnit('place', known.unit, 'x')
      const remedy = 'Place it nearer, or cable it.'
      const read = signalRead(home, hop.from, at)
      const long = (how: string, dbm: number, verdict: Verdict) =>
        byFigures(
          `long, from ${hop.from.id}, ${how}`,
          [
            { name: 'm too long', value: hop.metres - most, better: 'less' },
            { name: 'dB above what is wanted', value: dbm - least, better: 'more' }
          ],
          verdict
        )
      const wanted = `at most ${most} m, or at least ${least} dBm as it is read there, is wanted`
      const given = home.record.answers[ruleKey('place-spacing', known.unit.id)]
      // Whoever says that it is good without knowing of a reading does not undo it.
      if (read && !(given && hasSeen(home.history, given.seq, read.seq))) {
        const told = `${words}, ${read.dbm} dBm as it was read there`
        if (read.stale !== null)
          return noLonger(unproven(`${told}. ${read.stale}`, 'Read its signal there once more.', place, about))
        return read.dbm >= least
          ? holds(`${told}.`, about)
          : long('read', read.dbm, breaks(`${told}; ${wanted}.`, remedy, place, about))
      }
      // What the plan reckons proves nothing; where it reckons too little as well, nobody need measure.
      const planned = `${words}, ${Math.round(hop.dbm)} dBm by the plan`
      const isSaid = given?.answer === 'yes' && staleSight(home, 'place-spacing', known) === null
      if (hop.dbm < least && !isSaid)
        return long('by the plan', hop.dbm, breaks(`${planned}; ${wanted}.`, remedy, place, about))
      return seenInPlace(home, 'place-spacing', known, {
        evidence: `${planned}, and nobody read its signal there; ${wanted}.`,
        remedy: 'Read its signal there, or see that it is good and say so by one press.'
      })
    })
})

export const placeFloors = rule({
  id: 'place-floors',
  name: 'Cable between storeys',
  stage: 'place',
  level: 'should',
  minutes: 2,
  needs: ['model', 'role'],
  statement: 'Members on different storeys are cabled, or the record says why not.',
  judge: (home) => {
    const found = inPlan(home)
    const hops = joinsIn(home, found)
    const notShown = (known: KnownUnit) =>
      known.unit.facts.floorsReason
        ? [holds(`Without a cable: ${known.unit.facts.floorsReason.replace(/[.!?]*$/, '')}.`, aboutUnit(known))]
        : cabledOrSeen(home, 'place-floors', known)
    const hanging = new Set(hangingMembers(home))
    const unseen = unplacedMembers(home, found).flatMap(notShown)
    const seen = found.placed.flatMap(({ known, at }) => {
      const hop = hops.get(at.id)
      if (hop === undefined) return hanging.has(known) ? notShown(known) : []
      if (typeof hop === 'string' || hop.from.storey === at.storey) return []
      const about = aboutUnit(known)
      if (known.unit.facts.floorsReason)
        return [
          holds(
            `On another storey than ${hop.from.name}, without a cable: ${known.unit.facts.floorsReason.replace(/[.!?]*$/, '')}.`,
            about
          )
        ]
      return [
        breaks(
          `On another storey than ${hop.from.name}, and no cable leads there.`,
          'Cable it if you can, or record why not.',
          atUnit('place', known.unit, 'floorsReason'),
          about
        )
      ]
    })
    return [...seen, ...unseen]
  }
})

export const placeOutbuilding = rule({
  id: 'place-outbuilding',
  name: 'Cable between buildings',
  stage: 'place',
  level: 'must',
  minutes: 10,
  needs: ['model', 'role'],
  statement: 'A member in another building is cabled, with a note on surge protection.',
  judge: (home) => {
    const found = inPlan(home)
    const members = new Set(hangingMembers(home).map(({ unit }) => unit.id))
    const seen = found.placed.flatMap(({ known, at }) => {
      const room = roomAt(found.plan, at)
      if (!isMeshMember(known)) return []
      // Of one that stands in no drawn room the plan tells no building.
      if (!room) return members.has(known.unit.id) ? seenInPlace(home, 'place-outbuilding', known) : []
      if (!room.building) return []
      const about = aboutUnit(known)
      if (!isCabled(home.record, known.unit, home.catalogue))
        return [
          breaks(
            `It is in ${room.building}, and no cable leads there.`,
            'Use fibre, or a cable with surge protection by a licensed electrician.',
            atUnit('place', known.unit, 'cabled'),
            about
          )
        ]
      if (!known.unit.facts.surgeNote)
        return [
          unproven(
            `It is cabled to ${room.building}, and nothing is noted of surge protection.`,
            'Note who protected the cable, or that it is fibre.',
            atUnit('place', known.unit, 'surgeNote'),
            about
          )
        ]
      return [holds(`Cabled to ${room.building}: ${known.unit.facts.surgeNote.replace(/[.!?]*$/, '')}.`, about)]
    })
    const unseen = unplacedMembers(home, found).flatMap((known) => {
      const { surgeNote } = known.unit.facts
      return isCabled(home.record, known.unit, home.catalogue) && surgeNote
        ? [holds(`Cabled: ${surgeNote.replace(/[.!?]*$/, '')}.`, aboutUnit(known))]
        : seenInPlace(home, 'place-outbuilding', known)
    })
    return [...seen, ...unseen]
  }
})

/** Rules of the Place stage that read the plan of the home. */
export const planRules: readonly Rule[] = [
  placeClear,
  placeOutlet,
  placeHops,
  placeSpacing,
  placeFloors,
  placeOutbuilding
]
