import { standing, thingsOf, type VisitRecord } from '../record/record'
import type { Finding } from '../rules/finding'

type Tasks = (unit: string, record: VisitRecord) => readonly string[]

const unboxing: Tasks = (unit) => [`kit:${unit}`]
const placing: Tasks = (unit, { units }) => (units[unit]?.facts.place === undefined ? ['place'] : [])
const cabling: Tasks = (unit) => [`connect:${unit}`]
const starting: Tasks = (unit) => [`step:${unit}:`]
const updating: Tasks = (unit) => [`update:${unit}`]
const login: Tasks = (unit) => [`login:${unit}`]
const addresses: Tasks = () => ['addresses']
const names: Tasks = () => ['wifi']
const handingOver: Tasks = () => ['handover']

/** The rooms that nothing was measured in are measured in one go. */
const measuring: Tasks = (room, record) =>
  standing(thingsOf(record, 'measurement')).some(
    ({ facts }) => facts.at === 'room' && facts.room === room && facts.runs !== undefined
  )
    ? []
    : ['rooms']

/** Rules whose findings a task of the visit settles on its way, as long as it is to be done; of the others each is work of its own. */
const settledBy: Readonly<Record<string, Tasks>> = {
  'kit-complete': unboxing,
  'kit-adapter': unboxing,
  'kit-identity': unboxing,
  'kit-label': unboxing,
  'kit-role': unboxing,
  'place-final': placing,
  'place-height': placing,
  'place-clear': placing,
  'place-outlet': placing,
  'cable-mode': cabling,
  'cable-power': cabling,
  'start-good-lamp': starting,
  'start-in-time': starting,
  'start-prompts': starting,
  'start-method-window': starting,
  'firm-recorded': updating,
  'firm-minimum': updating,
  'firm-same': updating,
  'addr-one-dhcp': addresses,
  'addr-valid': addresses,
  'addr-unique': addresses,
  'addr-pool': addresses,
  'wifi-name': names,
  'wifi-security': names,
  'wifi-passphrase': names,
  'wifi-guest': names,
  'wifi-segment': names,
  'cred-admin': login,
  'cred-local-admin': login,
  'prove-source': () => ['source'],
  'prove-rooms': measuring,
  'hand-choices': handingOver,
  'hand-lamp': handingOver,
  'hand-pack': handingOver,
  'hand-voice-power': handingOver,
  'hand-custody': handingOver,
  'hand-cautions': handingOver,
  'waits-ended': () => ['signoff']
}

/**
 * The task that settles a finding on its way; null where it is work of its own.
 * @param open the ids of the tasks that are to be done
 */
export function taskSettling(
  { rule, subject }: Pick<Finding, 'rule' | 'subject'>,
  record: VisitRecord,
  open: readonly string[]
): string | null {
  for (const wanted of settledBy[rule]?.(subject?.id ?? '', record) ?? []) {
    // Of a method it is the last step.
    const found = open.findLast((id) => (wanted.endsWith(':') ? id.startsWith(wanted) : id === wanted))
    if (found !== undefined) return found
  }
  return null
}
