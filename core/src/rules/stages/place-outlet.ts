import { hasRole } from '../../record/roles'
import type { PlacedUnit } from '../../work/plan/placed'
import { standing } from '../../record/record'
import { aboutUnit, atUnit, breaks, byFigures, holds, unproven, type Home, type Verdict, rule } from '../rule'
import { apart, figure, inPlan } from './in-plan'
import { isFedByCable } from './cables-of-home'
import type { KnownUnit } from '../../work/units/known-unit'
import { seenInPlace } from './seen-in-place'

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
    .filter(({ known }) => hasRole(known.unit, 'powerline-adapter'))
    .map((adapter) => ({ ...adapter, near: nearest(adapter.at, 'mains') }))
  const partners = home.units.filter(({ unit }) => hasRole(unit, 'powerline-adapter')).length
  const seen = found.placed.flatMap(({ known, at }): Verdict | Verdict[] => {
    const about = aboutUnit(known)
    if (isFedByCable(home, known.unit.id)) return overItsCable(known)
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
      return byFigures(
        'out of reach',
        [{ name: 'm too far', value: near.far - within, better: 'less' }],
        breaks(
          `The nearest mains outlet is ${near.far.toFixed(1)} m away; ${within} m is within reach.`,
          'Place it nearer to an outlet; no extension leads along the floor.',
          atUnit('place', known.unit, 'x'),
          about
        )
      )
    if (hasRole(known.unit, 'powerline-adapter')) {
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
      // Where the plan does not show the other one, its circuit is known to whoever looked.
      if (adapters.length < Math.max(2, partners))
        return seenInPlace(home, 'place-outlet', known, {
          evidence: 'The plan does not show its partner: whether both are on one circuit is not known.',
          remedy: 'Look, and say so by one press; or draw the partner into the plan.'
        })
    }
    return holds(`A mains outlet is ${near.far.toFixed(1)} m away.`, about)
  })
  const unseen = found.unplaced.flatMap((known) =>
    isFedByCable(home, known.unit.id) ? overItsCable(known) : seenInPlace(home, 'place-outlet', known)
  )
  return [...seen, ...unseen]
}

const overItsCable = (known: KnownUnit): Verdict => holds('It gets its power over its cable.', aboutUnit(known))

export const placeOutlet = rule({
  id: 'place-outlet',
  name: 'Outlet within reach',
  stage: 'place',
  level: 'must',
  minutes: 5,
  sparesUntouched: true,
  needs: ['role'],
  statement:
    "A mains outlet (or a powered port) is within reach; a powerline adapter is in a wall socket on its partner's circuit, not in a strip.",
  judge: judgeOutlet
})
