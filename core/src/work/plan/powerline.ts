import { hasRole } from '../../record/roles'
import { standing, thingsOf, unitName, type VisitRecord } from '../../record/record'
import { roomAt, type HomePlan } from './home-plan'
import { placedUnits } from './placed'

/** Where a powerline adapter can go: the outlets on its partner's circuit. */
export interface PartnerCircuit {
  partner: string
  circuit: string
  /** Wall sockets of that circuit, by their rooms; strips are left out. */
  outlets: { id: string; where: string }[]
}

/** The circuit of a powerline adapter's partner, by the outlet that the partner stands nearest to; null where it is not known. */
export function partnerCircuit(record: VisitRecord, plan: HomePlan, unit: string): PartnerCircuit | null {
  const mains = standing(thingsOf(record, 'outlet')).flatMap(({ id, facts: { kind, storey, x, y, circuit, strip } }) =>
    kind !== 'mains' || storey === undefined || x === undefined || y === undefined
      ? []
      : [{ id, storey, x, y, circuit, strip: strip === true }]
  )
  for (const partner of placedUnits(record, plan)) {
    if (partner.id === unit || !hasRole(partner.unit, 'powerline-adapter')) continue
    const near = mains
      .filter(({ storey }) => storey === partner.storey)
      .sort((a, b) => Math.hypot(a.x - partner.x, a.y - partner.y) - Math.hypot(b.x - partner.x, b.y - partner.y))[0]
    if (near?.circuit === undefined) continue
    const storeyName = new Map(plan.storeys.map(({ id, name }) => [id, name]))
    return {
      partner: unitName(partner.unit),
      circuit: near.circuit,
      outlets: mains
        .filter(({ circuit, strip, id }) => circuit === near.circuit && !strip && id !== near.id)
        .map((outlet) => ({
          id: outlet.id,
          where: roomAt(plan, outlet)?.name ?? storeyName.get(outlet.storey) ?? 'the plan'
        }))
    }
  }
  return null
}
