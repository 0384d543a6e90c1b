import { isCabled } from '../../work/configure/cabled'
import { placedUnits, planOf, roomAt, type HomePlan, type PlacedUnit } from '../../work/plan/home-plan'
import { joinsOf, type Hop, type Join } from '../../work/plan/hops'
import { standing } from '../../record/record'
import { aboutUnit, atUnit, breaks, holds, unproven, type Home, type Rule, type Verdict, rule } from '../rule'
import { isMeshMember, type KnownUnit } from '../../work/units/known-unit'
import { laterFigures } from '../../policy/standard'
import { seenInPlace, type PlaceQuestion } from './seen-in-place'

interface InPlan {
  plan: HomePlan
  placed: { known: KnownUnit; at: PlacedUnit }[]
  unplaced: KnownUnit[]
}

/** The units of a home as they stand in its plan, and those that it does not show: of them somebody says what they see. */
function inPlan(home: Home): InPlan {
  const plan = planOf(home.record)
  if (plan.rooms.length === 0) return { plan, placed: [], unplaced: home.units }
  const places = new Map(placedUnits(home.record, plan).map((placed) => [placed.id, placed]))
  return {
    plan,
    placed: home.units.flatMap((known) => {
      const at = places.get(known.unit.id)
      return at ? [{ known, at }] : []
    }),
    unplaced: home.units.filter(({ unit }) => !places.has(unit.id))
  }
}

const isRoot = (known: KnownUnit) => known.unit.facts.role === 'router' || known.unit.facts.role === 'gateway'

/** Members of a mesh that no plan shows, but for the one that the others hang on: a router among several members. */
function unplacedMembers(home: Home, { unplaced }: InPlan): KnownUnit[] {
  const members = home.units.filter(isMeshMember)
  return members.length > 1 ? unplaced.filter((known) => isMeshMember(known) && !isRoot(known)) : []
}

const figure = (home: Home, name: keyof typeof laterFigures) => home.policy[name] ?? laterFigures[name]
const apart = (a: { x: number; y: number }, b: { x: number; y: number }) => Math.hypot(a.x - b.x, a.y - b.y)

function judgeClear(home: Home): Verdict[] {
  const found = inPlan(home)
  const troubles = standing(home.record.troubles ?? {})
  const least = figure(home, 'clearM')
  const unseen = found.unplaced
    .filter(({ unit, model }) => unit.facts.cabinet === true || (model?.radios.length ?? 0) > 0)
    .flatMap((known) => (known.unit.facts.cabinet ? [shutIn(known)] : seenInPlace(home, 'place-clear', known)))
  const seen = found.placed.map(({ known, at }) => {
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
      return breaks(
        `${near.far.toFixed(1)} m from a ${(near.facts.kind ?? 'trouble').replaceAll('-', ' ')}; at least ${least} m is wanted.`,
        'Move it, or the other.',
        atUnit('place', known.unit, 'x'),
        about
      )
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

function judgeOutlet(home: Home): Verdict[] {
  const found = inPlan(home)
  const outlets = standing(home.record.outlets ?? {}).filter(
    ({ facts }) => facts.storey !== undefined && facts.x !== undefined && facts.y !== undefined
  )
  const within = figure(home, 'outletWithinM')
  const nearest = (at: PlacedUnit, kind: string) =>
    outlets
      .filter(({ facts }) => facts.kind === kind && facts.storey === at.storey)
      .map((outlet) => ({ outlet, far: apart(at, { x: outlet.facts.x!, y: outlet.facts.y! }) }))
      .sort((a, b) => a.far - b.far)[0]
  const adapters = found.placed
    .filter(({ known }) => known.unit.facts.role === 'powerline-adapter')
    .map((adapter) => ({ ...adapter, near: nearest(adapter.at, 'mains') }))
  const seen = found.placed.map(({ known, at }) => {
    const about = aboutUnit(known)
    const powered = known.model?.ports.some(({ powerInClass }) => powerInClass !== undefined) ?? false
    const near = nearest(at, 'mains') ?? null
    const socket = powered ? nearest(at, 'network') : undefined
    if (socket && socket.far <= within)
      return holds(`A network socket for its power is ${socket.far.toFixed(1)} m away.`, about)
    if (!near)
      return unproven(
        'No outlet of its storey is in the plan.',
        'Put the outlets into the plan.',
        atUnit('place', known.unit, 'x'),
        about
      )
    if (near.far > within)
      return breaks(
        `The nearest mains outlet is ${near.far.toFixed(1)} m away; ${within} m is within reach.`,
        'Place it nearer to an outlet; no extension leads along the floor.',
        atUnit('place', known.unit, 'x'),
        about
      )
    if (known.unit.facts.role === 'powerline-adapter') {
      if (near.outlet.facts.strip)
        return breaks(
          'Its outlet is a strip, which swallows what a powerline adapter sends.',
          'Put it straight into the wall socket.',
          atUnit('place', known.unit, 'x'),
          about
        )
      const circuits = new Set(
        adapters.map((adapter) => adapter.near?.outlet.facts.circuit).filter((candidate) => candidate !== undefined)
      )
      if (circuits.size > 1)
        return breaks(
          `The adapters are on different circuits: ${[...circuits].sort().join(' and ')}.`,
          'Put both on one circuit.',
          atUnit('place', known.unit, 'x'),
          about
        )
      if (near.outlet.facts.circuit === undefined)
        return unproven(
          'The circuit of its outlet is not recorded.',
          'Look at the fuse box, and note the circuit at the outlet.',
          { stage: 'place', kind: 'outlet', id: near.outlet.id, field: 'circuit' },
          about
        )
    }
    return holds(`A mains outlet is ${near.far.toFixed(1)} m away.`, about)
  })
  return [...seen, ...found.unplaced.flatMap((known) => seenInPlace(home, 'place-outlet', known))]
}

/** How each mesh member is joined to the router, by the plan. */
function joinsIn(home: Home, { plan, placed }: InPlan): Map<string, Join> {
  const members = placed
    .filter(({ known }) => isMeshMember(known))
    .map(({ known, at }) => ({ at, cabled: isCabled(home.record, known.unit, home.catalogue) }))
  return joinsOf(plan, members, home.catalogue, figure(home, 'leastHopDbm'))
}

/** Judges each wireless hop of the plan; of members that it does not show, what somebody saw. */
function eachHop(home: Home, rule: PlaceQuestion, judge: (hop: Hop, known: KnownUnit) => Verdict): Verdict[] {
  const found = inPlan(home)
  const hops = joinsIn(home, found)
  const seen = found.placed.flatMap(({ known, at }) => {
    const hop = hops.get(at.id)
    if (hop === undefined || hop === 'root') return []
    return hop === 'cabled' ? [holds('It is cabled.', aboutUnit(known))] : [judge(hop, known)]
  })
  return [...seen, ...unplacedMembers(home, found).flatMap((known) => cabledOrSeen(home, rule, known))]
}

/** A cable leaves nothing to be asked of a hop. */
const cabledOrSeen = (home: Home, rule: PlaceQuestion, known: KnownUnit): Verdict[] =>
  isCabled(home.record, known.unit, home.catalogue)
    ? [holds('It is cabled.', aboutUnit(known))]
    : seenInPlace(home, rule, known)

export const placeClear = rule({
  id: 'place-clear',
  name: 'In the open',
  stage: 'place',
  level: 'should',
  minutes: 3,
  statement:
    'Not in a cabinet nor behind a large object; distance to each listed source of trouble at least the figure of the standard.',
  judge: judgeClear
})

export const placeOutlet = rule({
  id: 'place-outlet',
  name: 'Outlet within reach',
  stage: 'place',
  level: 'must',
  minutes: 5,
  statement:
    "A mains outlet (or a powered port) is within reach; a powerline adapter is in a wall socket on its partner's circuit, not in a strip.",
  judge: judgeOutlet
})

export const placeHops = rule({
  id: 'place-hops',
  name: 'Wireless hops',
  stage: 'place',
  level: 'must',
  minutes: 8,
  statement: "Wireless hops from the router within the model's limit.",
  judge: (home) =>
    eachHop(home, 'place-hops', (hop, known) => {
      const most = Math.min(known.model?.mesh?.hops ?? Infinity, figure(home, 'mostHops'))
      if (hop.hops <= most)
        return holds(
          `${hop.hops} wireless ${hop.hops === 1 ? 'hop' : 'hops'}, from ${hop.from.name}; the limit is ${most}.`,
          aboutUnit(known)
        )
      return breaks(
        `${hop.hops} wireless hops from the router; the limit is ${most}.`,
        'Cable it, or place it nearer.',
        atUnit('place', known.unit, 'x'),
        aboutUnit(known)
      )
    })
})

export const placeSpacing = rule({
  id: 'place-spacing',
  name: 'Length of a hop',
  stage: 'place',
  level: 'should',
  minutes: 8,
  statement: 'Each wireless hop at most the length of the standard, or its signal at or above the figure.',
  judge: (home) =>
    eachHop(home, 'place-spacing', (hop, known) => {
      const [most, least] = [figure(home, 'mostHopM'), figure(home, 'leastHopDbm')]
      const words = `${hop.metres.toFixed(1)} m from ${hop.from.name}, ${Math.round(hop.dbm)} dBm by the plan`
      if (hop.metres <= most || hop.dbm >= least) return holds(`${words}.`, aboutUnit(known))
      return breaks(
        `${words}; at most ${most} m or at least ${least} dBm is wanted.`,
        'Place it nearer, or cable it.',
        atUnit('place', known.unit, 'x'),
        aboutUnit(known)
      )
    })
})

export const placeFloors = rule({
  id: 'place-floors',
  name: 'Cable between storeys',
  stage: 'place',
  level: 'should',
  minutes: 2,
  statement: 'Members on different storeys are cabled, or the record says why not.',
  judge: (home) => {
    const found = inPlan(home)
    const hops = joinsIn(home, found)
    const unseen = unplacedMembers(home, found).flatMap((known) =>
      known.unit.facts.floorsReason
        ? [holds(`Without a cable: ${known.unit.facts.floorsReason.replace(/[.!?]*$/, '')}.`, aboutUnit(known))]
        : cabledOrSeen(home, 'place-floors', known)
    )
    const seen = found.placed.flatMap(({ known, at }) => {
      const hop = hops.get(at.id)
      if (hop === undefined || typeof hop === 'string' || hop.from.storey === at.storey) return []
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
  statement: 'A member in another building is cabled, with a note on surge protection.',
  judge: (home) => {
    const found = inPlan(home)
    const seen = found.placed.flatMap(({ known, at }) => {
      const room = roomAt(found.plan, at)
      if (!room?.building || !isMeshMember(known)) return []
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
