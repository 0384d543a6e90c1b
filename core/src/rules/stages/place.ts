import type { Policy } from '../../policy/standard'
import { aboutUnit, atUnit, breaks, byFigures, holds, unproven, type Rule, type Verdict, rule } from '../rule'
import { isMeshMember, type KnownUnit } from '../../work/units/known-unit'

export const placeHeight = rule({
  id: 'place-height',
  name: 'Height',
  stage: 'place',
  level: 'should',
  minutes: 3,
  sparesUntouched: true,
  needs: ['model'],
  statement:
    'Mounted height within the figure of the standard; a model made for a ceiling, a wall or a wall socket goes by its own figures.',
  judge: ({ units, policy }) =>
    units.flatMap((known): Verdict[] => {
      const heights = heightsFor(known, policy)
      const { heightM } = known.unit.facts
      if (heights === null) return []
      const place = atUnit('place', known.unit, 'heightM')
      const wanted = `${heights.whose} ${heights.least} to ${heights.most} m`
      if (heightM === undefined)
        return [
          unproven(
            `How high it stands is not recorded; ${wanted}.`,
            'Measure, or estimate, and enter it.',
            place,
            aboutUnit(known)
          )
        ]
      if (heightM >= heights.least && heightM <= heights.most)
        return [holds(`${heightM} m above the floor.`, aboutUnit(known))]
      const isLow = heightM < heights.least
      const off = isLow ? heights.least - heightM : heightM - heights.most
      return [
        byFigures(
          `${isLow ? 'too low' : 'too high'} for what ${heights.whose}`,
          [{ name: 'm off', value: off, better: 'less' }],
          breaks(
            `${heightM} m above the floor; ${wanted}.`,
            'Move it, or acknowledge with the reason.',
            place,
            aboutUnit(known)
          )
        )
      ]
    })
})

/** Between which heights a unit is to be put; null where its model makes no difference of it, or it sends nothing. */
function heightsFor(
  { model }: KnownUnit,
  { leastHeightM, mostHeightM }: Policy
): { least: number; most: number; whose: string } | null {
  if (!model?.radios.length) return null
  if (!model.mount) return { least: leastHeightM, most: mostHeightM, whose: 'the standard wants' }
  const { leastM, mostM } = model.mount
  return leastM === undefined && mostM === undefined
    ? null
    : { least: leastM ?? 0, most: mostM ?? 20, whose: `${model.name} is made for` }
}

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
    // The least of their limits counts; where a maker states none, the company's.
    const most = Math.min(
      ...members.map(({ model }) => {
        const { members: stated } = model!.mesh!
        return stated === undefined ? policy.mostMembers : (stated ?? Infinity)
      })
    )
    if (most === Infinity) return [holds(`${members.length} members; its mesh may be of any number.`)]
    if (members.length <= most) return [holds(`${members.length} members; the limit is ${most}.`)]
    return [
      byFigures(
        'too many',
        [{ name: 'members above the limit', value: members.length - most, better: 'less' }],
        breaks(
          `${members.length} members; the limit is ${most}.`,
          'Take one out, or cable an access point instead.',
          atUnit('kit', members.at(-1)!.unit, 'role')
        )
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
        return unproven(
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
