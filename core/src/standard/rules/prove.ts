import { aboutUnit, breaks, holds, isMeshMember, unproven, type KnownUnit, type Place, type Rule } from '../rule'

const atTest = ({ unit }: KnownUnit): Place => ({ stage: 'prove', kind: 'unit', id: unit.id, field: 'test' })

/** A unit that is joined to another over the air: a member of a mesh, or an extender. */
const isJoined = (known: KnownUnit) => isMeshMember(known) || known.unit.facts.role === 'extender'

/** The members of a home that test their links: none where there is but one. */
export function testedUnits(units: readonly KnownUnit[]): KnownUnit[] {
  const joined = units.filter(isJoined)
  return joined.length > 1 || joined.some(({ unit }) => unit.facts.role === 'extender') ? joined : []
}

/** Rules of Prove. */
export const proveRules: Rule[] = [
  {
    id: 'prove-after-move', stage: 'prove', level: 'must',
    says: 'Mesh or link test after the last move of every member, and good.',
    judge: ({ units }) => testedUnits(units).map((known) => {
      const about = aboutUnit(known)
      const { events } = known.unit
      const test = events.findLast(({ what }) => what === 'tested-good' || what === 'tested-bad')
      const moved = events.findLast(({ what }) => what === 'moved')
      if (!test) return unproven('Its link has not been tested.', 'Run the family’s own test, or look at its link in the app, and note it.', atTest(known), about)
      if (moved && moved.seq > test.seq) return unproven('It was moved since its link was tested.', 'Test it again where it stands now.', atTest(known), about)
      if (test.what === 'tested-bad') return breaks('Its link was tested, and is not good.', 'Move it nearer or cable it, then test again.', atTest(known), about)
      return holds(moved ? 'Its link was tested after the move, and is good.' : 'Its link was tested, and is good.', about)
    })
  }
]
