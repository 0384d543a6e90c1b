import { standing, type VisitRecord } from '../../record/record'
import { observations } from './observations'

/** Which looks there are at this home: nobody is asked for a router where there is none, nor for a hop of a cabled unit. */
export function applicableLooks(record: VisitRecord, about: { unit?: string | undefined }): ReadonlySet<string> {
  const units = standing(record.units)
  const line = units.some(({ facts }) => facts.role === 'modem' || facts.role === 'gateway')
  const router = units.find(({ facts }) => facts.role === 'router')
  const unit = units.find(({ id }) => id === about.unit)
  const joined = unit?.facts.role === 'node' || unit?.facts.role === 'extender'
  const not = new Set<string>([
    ...(line ? [] : ['line-lamp', 'restart-modem', 'wired-modem']),
    ...(router && line ? [] : ['wan-link', 'swap-wan-cable', 'wan-address']),
    ...(router && router.id !== unit?.id ? [] : ['router-lamp', 'wifi-router']),
    ...(joined && unit?.facts.cabled !== true ? [] : ['hop-signal']),
    ...(unit?.facts.role === 'node' ? [] : ['family']),
    ...(joined ? [] : ['pairing-time']),
    ...(unit?.facts.cabled || unit?.facts.role === 'access-point' ? [] : ['unit-link', 'swap-unit-cable'])
  ])
  return new Set(observations.map(({ id }) => id as string).filter((id) => !not.has(id)))
}
