import { aboutUnit, atUnit, breaks, holds, unproven, type Rule, rule } from '../rule'
import { isMeshMember } from '../../work/units/known-unit'

export const placeHeight = rule({
  id: 'place-height',
  name: 'Height',
  stage: 'place',
  level: 'should',
  minutes: 3,
  sparesUntouched: true,
  statement: 'Mounted height within the figure of the standard, ceiling models apart.',
  judge: ({ units, policy }) =>
    units
      .filter(
        ({ unit, model }) => unit.facts.heightM !== undefined && !model?.ports.every(({ kind }) => kind === 'mains')
      )
      .map((known) => {
        const height = known.unit.facts.heightM!
        if (height >= policy.leastHeightM && height <= policy.mostHeightM)
          return holds(`${height} m above the floor.`, aboutUnit(known))
        return breaks(
          `${height} m above the floor; the standard wants ${policy.leastHeightM} to ${policy.mostHeightM} m.`,
          'Move it, or acknowledge with the reason.',
          atUnit('place', known.unit, 'heightM'),
          aboutUnit(known)
        )
      })
})

export const placeCount = rule({
  id: 'place-count',
  name: 'Number of mesh members',
  stage: 'place',
  level: 'must',
  minutes: 1,
  needs: ['model', 'role'],
  statement: "Number of mesh members within the model's limit.",
  judge: ({ units, policy }) => {
    const members = units.filter(isMeshMember)
    if (members.length < 2) return []
    const limits = members.map(({ model }) => model!.mesh!.members)
    const most =
      limits.some((limit) => limit === null) && limits.every((limit) => limit === null)
        ? policy.mostMembers
        : Math.min(...limits.map((limit) => limit ?? Infinity))
    if (members.length <= most) return [holds(`${members.length} members; the limit is ${most}.`)]
    return [
      breaks(
        `${members.length} members; the limit is ${most}.`,
        'Take one out, or cable an access point instead.',
        atUnit('kit', members.at(-1)!.unit, 'role')
      )
    ]
  }
})

export const placeFinal = rule({
  id: 'place-final',
  name: 'Final place',
  stage: 'place',
  level: 'must',
  minutes: 1,
  sparesUntouched: true,
  statement: "Each unit's final place is recorded; if it was set up elsewhere, the move is recorded.",
  judge: ({ units }) =>
    units.map((known) => {
      const { place, setUpPlace } = known.unit.facts
      if (place === undefined)
        return unproven(
          'Where it stays is not recorded.',
          'Say where it stays.',
          atUnit('place', known.unit, 'place'),
          aboutUnit(known)
        )
      if (setUpPlace !== undefined && setUpPlace !== place && !known.unit.events.some(({ what }) => what === 'moved')) {
        return breaks(
          `It was set up at ${setUpPlace} and stays at ${place}, but no move is recorded.`,
          'Record the move once it stands there.',
          atUnit('place', known.unit, 'moveRecorded'),
          aboutUnit(known)
        )
      }
      return holds(`It stays at ${place}.`, aboutUnit(known))
    })
})

/** Rules of the Place stage that need no plan of the home. */
export const placeRules: readonly Rule[] = [placeHeight, placeCount, placeFinal]
