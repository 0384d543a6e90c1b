import { hasRole } from '../../record/roles'
import { hasEndAt, standing, thingsOf, type Unit, type VisitRecord } from '../../record/record'
import { observations, type ObservationId } from './observations'

/** Which looks there are at this home: nobody is asked for a router where there is none, nor for a hop of a cabled unit. */
export function applicableLooks(record: VisitRecord, about: { unit?: string | undefined }): ReadonlySet<string> {
  const units = standing(record.units)
  const line = units.some(({ facts }) => facts.role === 'modem' || facts.role === 'gateway')
  const router = units.find(({ facts }) => facts.role === 'router')
  const unit = units.find(({ id }) => id === about.unit)
  const cabled = unit?.facts.cabled === true
  const joined = unit?.facts.role === 'node' || unit?.facts.role === 'extender'
  const overMains = unit !== undefined && (hasRole(unit, 'powerline-adapter') || hangsOnMains(record, unit))
  const behind = router !== undefined && router.id !== unit?.id
  const only: [isThere: boolean, looks: ObservationId[]][] = [
    [line, ['line-lamp', 'restart-modem', 'wired-modem']],
    [router !== undefined && line, ['wan-link', 'swap-wan-cable', 'wan-address']],
    [behind, ['router-lamp', 'wifi-router']],
    [joined && !cabled, ['hop-signal', 'shared-radio']],
    [overMains, ['powerline-rate']],
    [unit?.facts.role === 'node', ['family']],
    [joined, ['pairing-time']],
    [cabled || unit?.facts.role === 'access-point', ['unit-link', 'swap-unit-cable']]
  ]
  const not = new Set<string>(only.flatMap(([isThere, looks]) => (isThere ? [] : looks)))
  return new Set(observations.map(({ id }) => id as string).filter((id) => !not.has(id)))
}

/** Whether a cable leads from a unit to an adapter that goes on through the mains. */
function hangsOnMains(record: VisitRecord, unit: Unit): boolean {
  const adapters = standing(record.units).filter((other) => hasRole(other, 'powerline-adapter'))
  return standing(thingsOf(record, 'cable')).some(
    (cable) => hasEndAt(cable, unit.id) && adapters.some(({ id }) => hasEndAt(cable, id))
  )
}
