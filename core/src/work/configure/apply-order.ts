import { hasRole } from '../../record/roles'
import { modelOf, type Catalogue, type Model } from '../../catalogue/model'
import { updateWork } from '../../catalogue/firmware-work'
import { ruleKey, standing, thingsOf, unitName, type Recorded, type Unit, type VisitRecord } from '../../record/record'
import { listed } from '../../values/list'
import { cablesOf } from '../cabling/known-cable'
import { isMeshMember } from '../units/known-unit'
import { isAdopted } from '../units/run-as-one'
import { farthestFirst } from './upstream'

/** What a change is of. */
export const changeKinds = [
  'firmware',
  'admin',
  'channel',
  'relays',
  'wifi',
  'vlan',
  'mode',
  'dhcp',
  'address'
] as const
export type ChangeKind = (typeof changeKinds)[number]

/** One change on one unit, in its place in the order. */
export interface Change {
  /** Unit and kind; what its answer is kept under. */
  id: string
  unit: string
  name: string
  kind: ChangeKind
  label: string
  /** How the technician is cut off by it: not at all, until it has started again, until they join anew, or until they go to its new address. */
  cuts: 'no' | 'until it is back' | 'join again' | 'new address'
  needsRestart: boolean
  applied: boolean
}

/** Under which rule's answers it is kept that a change was applied. */
export const APPLIED_RULE = 'addr-applied'

/**
 * The changes of Configure in an order in which nobody is cut off from a unit that still needs something: the far units first and the
 * router after them; on each unit what cuts off least first. Fixed addresses come last of all, those of the far units once whoever leads
 * has the range: before, nobody would reach them in it. What a controller runs is set at the controller.
 */
export function applyOrder(record: VisitRecord, catalogue: Catalogue): Change[] {
  const changes: Change[] = []
  const addresses: Change[] = []
  const networks = standing(record.networks)
  const main = networks
    .filter(({ facts }) => facts.ssid !== undefined && facts.extender === undefined)
    .map(({ facts }) => facts.ssid!)
  // Units that are reached through others come first: a router is changed once nothing behind it needs anything any more.
  for (const { unit, through } of farthestFirst(record, catalogue)) {
    const model = modelOf(unit, catalogue)
    if (!model) continue
    const add = (kind: ChangeKind, message: string, cuts: Change['cuts'], needsRestart = false) => {
      const id = `${unit.id} ${kind}`
      const list = kind === 'address' && through !== null ? addresses : changes
      list.push({
        id,
        unit: unit.id,
        name: unitName(unit),
        kind,
        label: message,
        cuts,
        needsRestart,
        applied: record.answers[ruleKey(APPLIED_RULE, id)]?.answer === 'yes'
      })
    }
    const { role, mode, dhcpServer } = unit.facts
    const path = installsOf(unit, model)
    if (path.length) add('firmware', `Install ${path.join(', then ')}`, 'until it is back', true)
    const isRun = isAdopted({ unit, model })
    if (!isRun && hasAdminPassword(record, unit)) add('admin', 'Set the admin password that lies in the vault', 'no')
    const radios = standing(thingsOf(record, 'radio')).filter(
      ({ facts }) => facts.unit === unit.id && facts.channel !== undefined
    )
    if (!isRun && radios.length) add('channel', radios.map(channelWords).join('; '), 'until it is back')
    const relays = relaysOff(unit)
    if (relays) add('relays', relays, 'no')
    const own = networks
      .filter(({ facts }) => facts.extender === unit.id && facts.ssid !== undefined)
      .map(({ facts }) => facts.ssid!)
    const sends = own.length > 0 || !sendsHomeNames(unit, model) ? own : main
    if (!isRun && sends.length) add('wifi', `Names ${sends.join(', ')} with their passphrases`, 'join again')
    if (role === 'controller' && model.radios.length === 0 && main.length)
      add('wifi', `Names ${main.join(', ')} with their passphrases, for all that it runs`, 'no')
    const vlans = vlansOf(record, unit, catalogue)
    if (vlans) add('vlan', `VLANs: ${vlans}`, 'until it is back')
    if (mode !== undefined && model.roles.includes('access-point') && model.roles.includes('router'))
      add('mode', `Mode: ${mode.replace('-', ' ')}`, 'until it is back', true)
    if (dhcpServer !== undefined) add('dhcp', `DHCP server ${dhcpServer}`, 'no')
    const host = standing(record.hosts).find(({ facts }) => facts.unit === unit.id && facts.address !== undefined)
    if (host && role !== 'modem' && role !== 'gateway' && host.facts.address !== pageAddressOf(unit))
      add('address', `Own address ${host.facts.address}`, 'new address', true)
  }
  return [...changes, ...addresses]
}

/** The address of a unit's own page, as its label tells it, where that is one. */
const pageAddressOf = ({ facts: { pageAddress } }: Unit): string | undefined =>
  /(?:\d{1,3}\.){3}\d{1,3}/.exec(pageAddress ?? '')?.[0]

/** What is still to be installed on a unit, version by version. */
function installsOf({ facts: { firmwareBefore, firmwareAfter } }: Unit, model: Model): readonly string[] {
  return firmwareBefore === undefined || firmwareAfter !== undefined ? [] : updateWork(model, firmwareBefore).path
}

function hasAdminPassword({ secrets }: VisitRecord, unit: Unit): boolean {
  return Object.values(secrets).some(
    ({ thing, id, purpose }) => thing === 'unit' && id === unit.id && purpose === 'admin-password'
  )
}

/** What VLANs the ports of a unit carry, port by port; empty where none has a tagged one: a port that has none is as it came. */
function vlansOf(record: VisitRecord, unit: Unit, catalogue: Catalogue): string {
  const ports = cablesOf(record, catalogue).flatMap(({ cable: { facts }, a, b }) =>
    [a, b].flatMap((port) =>
      port?.end.thing === 'unit' && port.end.id === unit.id && facts.tagged?.length
        ? [
            `port ${port.name}: ${listed(facts.tagged.map(String))} tagged${facts.untagged === undefined ? '' : `, ${facts.untagged} untagged`}`
          ]
        : []
    )
  )
  return ports.join('; ')
}

const channelWords = ({ facts: { band, channel, widthMHz } }: Recorded<'radio'>): string =>
  `${band} GHz on channel ${channel}${widthMHz ? `, ${widthMHz} MHz` : ''}`

/** What of a unit's relay and second address is to be switched off, in words; empty where neither is. */
function relaysOff({ facts: { dhcpRelay, secondaryAddress } }: Unit): string {
  const off = [dhcpRelay === 'off' ? 'DHCP relay off' : '', secondaryAddress === 'off' ? 'secondary address off' : '']
  return off.filter(Boolean).join(', ')
}

/** Whether the home's names are typed into a unit: members of a mesh take them from their router. */
function sendsHomeNames(unit: Unit, model: Model): boolean {
  const { role } = unit.facts
  if (model.radios.length === 0) return false
  if (role === 'extender') return !isMeshMember({ model, unit })
  return hasRole(unit, 'router', 'gateway', 'access-point')
}
