import { hasRole } from '../../record/roles'
import { isGoodFor } from '../units/good-look'
import type { Folded } from '../../history/fold'
import { auditRecord } from '../addresses/home-audit'
import { checkCabling } from '../cabling/check'
import { cableMbps } from '../cabling/known-cable'
import { modelOf, type Catalogue, type Model } from '../../catalogue/model'
import { upstreamOf } from '../configure/upstream'
import { knownOrder, releaseOf } from '../../catalogue/firmware-order'
import { adapterFault } from '../units/adapter'
import { readLamps } from '../units/unit-lamps'
import { hopSharesRadio } from '../plan/hops'
import { judgePath } from '../prove/path'
import { judgeRooms, measured, roomFloor, sourceOf, type Measured } from '../prove/rooms'
import { hasEndAt, standing, thingsOf, type Cable, type Unit, type VisitRecord } from '../../record/record'
import type { Policy } from '../../policy/standard'
import type { Observed } from './belief'
import { lampAnswer } from './lamp-answer'
import type { ObservationId } from './observations'

/** An answer that the record holds already, and where it is from. */
export interface KnownAnswer {
  answer: string
  from: string
}

/** From this signal on a measurement counts as one beside the unit, dBm. */
const BESIDE_DBM = -62

/** Whether a version is below what is approved or withdrawn; undefined where that is not known. */
function firmwareSeen({ firmware: { releases, minimum } }: Model, runs: string): 'old' | 'approved' | undefined {
  if (releaseOf(releases, runs)?.withdrawn) return 'old'
  return ({ older: 'old', same: 'approved', newer: 'approved', unknown: undefined } as const)[
    knownOrder(runs, minimum, releases)
  ]
}

/** Tells an answer where one is known, and where it is from. */
type Tell = (id: ObservationId, answer: string | undefined, from: string) => void

/** A record as a search reads it. */
interface Searched {
  folded: Folded
  record: VisitRecord
  catalogue: Catalogue
  policy: Policy
  unit: Unit | undefined
  room: string | undefined
  line: Unit | undefined
  router: Unit | undefined
  modelOf: (unit: Unit) => Model | undefined
  /** Cables with an end at a unit. */
  touching: (unit: Unit | undefined) => readonly Cable[]
  /** The cable between line and router. */
  wan: Cable | undefined
  source: Measured | null
}

/** What the record knows already of a complaint about a unit, and maybe a room: nobody is asked it again. */
export function knownAnswers(
  folded: Folded,
  catalogue: Catalogue,
  policy: Policy,
  about: { unit?: string | undefined; room?: string | undefined }
): Partial<Record<string, KnownAnswer>> {
  const { record } = folded
  const known: Partial<Record<string, KnownAnswer>> = {}
  const tell: Tell = (id, answer, from) => {
    if (answer !== undefined) known[id] = { answer, from }
  }
  const units = standing(record.units)
  const cables = standing(thingsOf(record, 'cable'))
  const line = units.find((unit) => hasRole(unit, 'modem', 'gateway'))
  const router = units.find((unit) => hasRole(unit, 'router'))
  const touching: Searched['touching'] = (unit) => (unit ? cables.filter((cable) => hasEndAt(cable, unit.id)) : [])
  const searched: Searched = {
    folded,
    record,
    catalogue,
    policy,
    unit: units.find(({ id }) => id === about.unit),
    room: about.room,
    line,
    router,
    modelOf: (unit) => modelOf(unit, catalogue),
    touching,
    wan: touching(line).find((cable) => touching(router).includes(cable)),
    source: sourceOf(folded, catalogue)
  }
  tellLamps(searched, tell)
  tell('wired-modem', sourceSeen(searched), 'the measurement at the source')
  tell('wan-link', linkSeen(searched.wan), 'the link speed under Connect')
  if (searched.unit) tellUnit(searched, searched.unit, tell)
  if (cables.length > 0) tellPorts(searched, tell)
  tellServers(searched, tell)
  if (searched.room !== undefined) tellRoom(searched, searched.room, tell)
  return known
}

/** What came in at the source, against what is paid for; undefined where nobody measured, or where that something comes says nothing of how much is due. */
function sourceSeen({ source, record, policy }: Searched): 'yes' | 'slow' | 'no' | undefined {
  if (!source?.down) return undefined
  const { median } = source.down
  if (median <= 0) return 'no'
  const { speedDownMbps: paid } = record.brief.facts
  const { sourceShare: share } = policy
  if (paid === undefined || share === undefined) return undefined
  return median >= paid * share ? 'yes' : 'slow'
}

/** What the lamps of a unit told last; undefined where nobody looked, or what they showed is unknown. */
function lampSeen({ modelOf }: Searched, unit: Unit | undefined): string | undefined {
  const model = unit && modelOf(unit)
  if (!unit || !model || unit.sightings.length === 0) return undefined
  const { state } = readLamps(unit, model)
  if (state?.is) return lampAnswer[state.is] ?? state.is
  return state && isGoodFor(state, unit) ? 'good' : undefined
}

/** What the line's lamps can answer, by what they were seen to show. */
const lineAnswer: Partial<Record<string, string>> = {
  good: 'good',
  dark: 'dark',
  'no-line': 'no-line',
  'line-seeking': 'no-line',
  'line-training': 'no-line',
  'login-refused': 'login',
  'line-login': 'login'
}
const routerLamps = ['good', 'no-internet', 'radio-off', 'dark']
const unitLamps = [...routerLamps, 'weak', 'no-link', 'ready', 'failed']

function tellLamps(searched: Searched, tell: Tell): void {
  const { line, router, unit } = searched
  const from = 'the last sighting of its lamps'
  const among = (said: string | undefined, answers: readonly string[]) =>
    said !== undefined && answers.includes(said) ? said : undefined
  tell('line-lamp', lineAnswer[lampSeen(searched, line) ?? ''], from)
  if (router && router.id !== unit?.id) tell('router-lamp', among(lampSeen(searched, router), routerLamps), from)
  if (unit && unit.id !== line?.id) tell('unit-lamp', among(lampSeen(searched, unit), unitLamps), from)
}

/** How a cable's link came up against what it can carry; undefined where nobody looked. */
function linkSeen(cable: Cable | undefined): 'full' | 'slow' | undefined {
  const speed = cable?.facts.linkMbps
  if (speed === undefined) return undefined
  return speed < Math.min(1000, cableMbps(cable!.facts) ?? 1000) ? 'slow' : 'full'
}

/** What the record knows of the unit itself: its link, firmware, adapter, family, presses, path and what was done to it last. */
function tellUnit(searched: Searched, unit: Unit, tell: Tell): void {
  const { record, catalogue, touching, wan } = searched
  const through = upstreamOf(record, catalogue).get(unit.id)?.through
  const upstream = through ? touching(record.units[through]) : []
  const own = touching(unit).find((cable) => cable !== wan && upstream.includes(cable))
  tell('unit-link', linkSeen(own), 'the link speed under Connect')
  const model = searched.modelOf(unit)
  if (model) tellModel(searched, unit, model, tell)
  const press = (which: 'first' | 'second') => unit.pairing?.findLast((candidate) => candidate.which === which)
  const [first, second] = [press('first'), press('second')]
  if (first && second) {
    const tookS = (Date.parse(second.at) - Date.parse(first.at)) / 1000
    tell(
      'pairing-time',
      tookS <= (searched.policy.pairWindowS ?? 120) ? 'in-time' : 'late',
      'the presses under Start up'
    )
  }
  if (unit.path) tellPath(record, unit, unit.path, tell)
  const last = unit.events.findLast(({ what }) => what === 'moved' || what === 'settings-changed' || what === 'updated')
  if (last) tell('changed-last', last.what === 'moved' ? 'moved' : 'settings', 'the logbook')
}

/** What the catalogue says of a unit, next to what was recorded of it. */
function tellModel({ router, line, modelOf }: Searched, unit: Unit, model: Model, tell: Tell): void {
  const { adapterPlug, adapterVolts, adapterAmps, firmwareAfter, firmwareBefore, role, cabled } = unit.facts
  const runs = firmwareAfter ?? firmwareBefore
  if (runs !== undefined && model.firmware.releases.length > 0)
    tell('firmware', firmwareSeen(model, runs), 'the firmware recorded')
  if (model.power && adapterPlug !== undefined && adapterVolts !== undefined && adapterAmps !== undefined)
    tell(
      'adapter-label',
      adapterFault(model.power, unit.facts) === null ? 'own' : 'other',
      'what is printed on its adapter'
    )
  const isByAir = (role === 'node' || role === 'extender') && cabled !== true
  if (isByAir && model.radios.length > 0)
    tell('shared-radio', hopSharesRadio(model) ? 'shared' : 'own', 'the radios of its model')
  const lead = router ?? line
  if (role === 'node' && lead)
    tell('family', model.family !== null && model.family === modelOf(lead)?.family ? 'same' : 'other', 'the catalogue')
}

function tellPath(record: VisitRecord, unit: Unit, path: NonNullable<Unit['path']>, tell: Tell): void {
  const { before, after, address } = path
  const from = 'the proof of path'
  const rises = before !== undefined && after !== undefined && after > before
  if (before !== undefined && after !== undefined) tell('client-count', rises ? 'rises' : 'stays', from)
  if (/^169\.254\./.test(address)) tell('address', 'none', from)
  else tell('address', rises && judgePath(record, unit).outcome === 'breaks' ? 'other-range' : 'right', from)
}

const wrongPorts = ['modem-to-lan', 'internet-port', 'wrong-end']

function tellPorts({ record, catalogue }: Searched, tell: Tell): void {
  const isWrong = checkCabling(record, catalogue).some(({ code }) => wrongPorts.includes(code))
  tell('ports', isWrong ? 'wrong' : 'right', 'the port map under Connect')
}

function tellServers({ record, catalogue, policy }: Searched, tell: Tell): void {
  if (checkCabling(record, catalogue).some(({ code }) => code === 'two-dhcp'))
    tell('dhcp-servers', 'two', 'the port map under Connect')
  else if (
    standing(record.pools).length > 1 &&
    auditRecord(record, policy.poolSchool).findings.some(({ code }) => code === 'two-dhcp')
  )
    tell('dhcp-servers', 'two', 'the addresses under Configure')
}

/** What was measured in the room last tells of its signal, and where something came through of more. */
function tellRoom(searched: Searched, room: string, tell: Tell): void {
  const { folded, record, catalogue, policy, unit } = searched
  const from = 'the measurement of the room'
  const [newest] = measured(folded, catalogue, (facts) => facts.at === 'room' && facts.room === room)
  if (!newest || newest.stale) return
  const { facts } = newest.measurement
  if (facts.dbm !== undefined) tell('signal-room', facts.dbm >= (policy.roomDbm ?? -67) ? 'good' : 'weak', from)
  const isElsewhere = unit !== undefined && facts.unit !== unit.id
  if (!newest.down || newest.down.median <= 0 || isElsewhere) return
  // Something came through, and on the unit's own air.
  for (const id of ['ping-number', 'name-lookup'] as const) tell(id, 'yes', from)
  tell('network-name', 'ours', from)
  const floor = roomFloor(policy, searched.source)
  if (standsIn(record, unit, room) && (facts.dbm ?? -100) >= BESIDE_DBM)
    tell('wifi-unit', newest.down.median >= floor.mbps ? 'yes' : 'slow', from)
  tellOthers(searched, room, floor.mbps, tell)
}

/** Whether a unit stands in a room: a strong signal elsewhere says nothing of its hop. */
function standsIn({ rooms }: VisitRecord, unit: Unit | undefined, room: string): boolean {
  const place = unit?.facts.place?.trim().toLowerCase()
  return place !== undefined && rooms?.[room]?.facts.name?.trim().toLowerCase() === place
}

/** Whether the other rooms that were measured are fine. */
function tellOthers({ folded, catalogue, policy }: Searched, room: string, floorMbps: number, tell: Tell): void {
  const others = judgeRooms(folded, catalogue, policy).filter(
    (verdict) => verdict.room.id !== room && verdict.bands[0]?.down && !verdict.bands[0].stale
  )
  if (others.length === 0) return
  const isFine = others.some(({ outcome, bands }) => outcome === 'holds' || bands[0]!.down!.median >= floorMbps)
  tell('others', isFine ? 'fine' : 'slow', 'the measurements of the other rooms')
}

/** What is known and what was answered, together: an answer given in the search goes before what the record says. */
export function withKnown(known: Partial<Record<string, KnownAnswer>>, answered: Observed): Observed {
  return {
    ...Object.fromEntries(Object.entries(known).map(([id, observation]) => [id, observation!.answer])),
    ...answered
  }
}
