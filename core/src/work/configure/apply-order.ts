import { hasRole } from '../../record/roles'
import { modelOf, type Catalogue, type Model } from '../../catalogue/model'
import { updateWork } from '../../catalogue/firmware-work'
import {
  ruleKey,
  standing,
  thingsOf,
  unitName,
  type Network,
  type Recorded,
  type Secret,
  type Unit,
  type VisitRecord
} from '../../record/record'
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
 * @param since the last line that the visit took over: what is as it was then is set already, and is no change
 */
export function applyOrder(record: VisitRecord, catalogue: Catalogue, since = 0): Change[] {
  const changes: Change[] = []
  const addresses: Change[] = []
  // Units that are reached through others come first: a router is changed once nothing behind it needs anything any more.
  for (const { unit, through } of farthestFirst(record, catalogue)) {
    const model = modelOf(unit, catalogue)
    if (!model) continue
    for (const { kind, label, cuts, needsRestart = false, said } of settingsOf(record, unit, model, catalogue)) {
      if (label === '' || !isOfVisit(unit, said, since)) continue
      const list = kind === 'address' && through !== null ? addresses : changes
      const id = `${unit.id} ${kind}`
      const applied = record.answers[ruleKey(APPLIED_RULE, id)]?.answer === 'yes'
      list.push({ id, unit: unit.id, name: unitName(unit), kind, label, cuts, needsRestart, applied })
    }
  }
  return [...changes, ...addresses]
}

/** Whether something of a setting was said in this visit, or has to be said to the unit once more: it is new here, or was reset. */
const isOfVisit = (unit: Unit, said: readonly (number | undefined)[], since: number): boolean =>
  unit.addedSeq > since ||
  unit.events.some(({ what, seq }) => what === 'reset' && seq > since) ||
  said.some((seq) => seq !== undefined && seq > since)

/** What is set of a unit, kind by kind, with the lines that say so; without a label where nothing is. */
type Setting = Pick<Change, 'kind' | 'label' | 'cuts'> & {
  needsRestart?: boolean
  said: readonly (number | undefined)[]
}

function settingsOf(record: VisitRecord, unit: Unit, model: Model, catalogue: Catalogue): Setting[] {
  const { facts, meta } = unit
  const { mode, dhcpServer } = facts
  const both = model.roles.includes('access-point') && model.roles.includes('router')
  const path = installsOf(unit, model)
  const settings: Setting[] = [
    {
      kind: 'firmware',
      label: path.length > 0 ? `Install ${path.join(', then ')}` : '',
      cuts: 'until it is back',
      needsRestart: true,
      said: [Infinity]
    },
    ...(isAdopted({ unit, model }) ? [] : ofItsOwn(record, unit, model)),
    ...(facts.role === 'controller' && model.radios.length === 0 ? ofAllItRuns(record) : []),
    { kind: 'relays', label: relaysOff(unit), cuts: 'no', said: [meta.dhcpRelay?.seq, meta.secondaryAddress?.seq] },
    vlansOf(record, unit, catalogue),
    {
      kind: 'mode',
      label: mode !== undefined && both ? `Mode: ${mode.replace('-', ' ')}` : '',
      cuts: 'until it is back',
      needsRestart: true,
      said: [meta.mode?.seq]
    },
    {
      kind: 'dhcp',
      label: dhcpServer === undefined ? '' : `DHCP server ${dhcpServer}`,
      cuts: 'no',
      said: [meta.dhcpServer?.seq]
    },
    addressOf(record, unit)
  ]
  return settings.sort((a, b) => changeKinds.indexOf(a.kind) - changeKinds.indexOf(b.kind))
}

/** What is set on a unit that no controller runs: its login, its channels, the names it sends. */
function ofItsOwn(record: VisitRecord, unit: Unit, model: Model): Setting[] {
  const radios = standing(thingsOf(record, 'radio')).filter(
    ({ facts }) => facts.unit === unit.id && facts.channel !== undefined
  )
  const login = secretsOf(record, 'unit', unit.id).filter(({ purpose }) => purpose === 'admin-password')
  const own = standing(record.networks).filter(({ facts }) => facts.extender === unit.id && facts.ssid !== undefined)
  return [
    {
      kind: 'admin',
      label: login.length > 0 ? 'Set the admin password that lies in the vault' : '',
      cuts: 'no',
      said: login.map(({ seq }) => seq)
    },
    {
      kind: 'channel',
      label: radios.map(channelWords).join('; '),
      cuts: 'until it is back',
      said: radios.flatMap(({ meta }) => [meta.channel?.seq, meta.widthMHz?.seq])
    },
    namesOf(record, own.length > 0 || !sendsHomeNames(unit, model) ? own : mainNetworks(record))
  ]
}

const ofAllItRuns = (record: VisitRecord): Setting[] => {
  const names = namesOf(record, mainNetworks(record))
  return [{ ...names, label: names.label && `${names.label}, for all that it runs`, cuts: 'no' }]
}

const mainNetworks = ({ networks }: VisitRecord): Network[] =>
  standing(networks).filter(({ facts }) => facts.ssid !== undefined && facts.extender === undefined)

const namesOf = (record: VisitRecord, sent: readonly Network[]): Setting => ({
  kind: 'wifi',
  label: sent.length > 0 ? `Names ${sent.map(({ facts }) => facts.ssid!).join(', ')} with their passphrases` : '',
  cuts: 'join again',
  said: sent.flatMap(({ id, meta }) => [
    ...Object.values(meta).map(({ seq }) => seq),
    ...secretsOf(record, 'network', id).map(({ seq }) => seq)
  ])
})

function addressOf(record: VisitRecord, unit: Unit): Setting {
  const host = standing(record.hosts).find(({ facts }) => facts.unit === unit.id && facts.address !== undefined)
  const { role } = unit.facts
  const isSet = host && role !== 'modem' && role !== 'gateway' && host.facts.address !== pageAddressOf(unit)
  return {
    kind: 'address',
    label: isSet ? `Own address ${host.facts.address}` : '',
    cuts: 'new address',
    needsRestart: true,
    said: [host?.meta.address?.seq]
  }
}

const secretsOf = ({ secrets }: VisitRecord, kind: Secret['thing'], of: string): Secret[] =>
  Object.values(secrets).filter(({ thing, id }) => thing === kind && id === of)

/** The address of a unit's own page, as its label tells it, where that is one. */
const pageAddressOf = ({ facts: { pageAddress } }: Unit): string | undefined =>
  /(?:\d{1,3}\.){3}\d{1,3}/.exec(pageAddress ?? '')?.[0]

/** What is still to be installed on a unit, version by version. */
function installsOf({ facts: { firmwareBefore, firmwareAfter } }: Unit, model: Model): readonly string[] {
  return firmwareBefore === undefined || firmwareAfter !== undefined ? [] : updateWork(model, firmwareBefore).path
}

/** What VLANs the ports of a unit carry, port by port; empty where none has a tagged one: a port that has none is as it came. */
function vlansOf(record: VisitRecord, unit: Unit, catalogue: Catalogue): Setting {
  const ports = cablesOf(record, catalogue).flatMap(({ cable: { facts, meta }, a, b }) =>
    [a, b].flatMap((port) =>
      port?.end.thing === 'unit' && port.end.id === unit.id && facts.tagged?.length
        ? [
            {
              words: `port ${port.name}: ${listed(facts.tagged.map(String))} tagged${facts.untagged === undefined ? '' : `, ${facts.untagged} untagged`}`,
              said: [meta.tagged?.seq, meta.untagged?.seq]
            }
          ]
        : []
    )
  )
  return {
    kind: 'vlan',
    label: ports.length > 0 ? `VLANs: ${ports.map(({ words }) => words).join('; ')}` : '',
    cuts: 'until it is back',
    said: ports.flatMap(({ said }) => said)
  }
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
