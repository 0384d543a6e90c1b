import { auditRecord } from '../addresses/home-audit'
import { cableMbps, checkCabling } from '../cabling/check'
import { modelKey, type Catalogue, type Model } from '../../catalogue/model'
import { upstreamOf } from '../configure/upstream'
import { knownOrder, releaseOf } from '../../catalogue/firmware-order'
import { adapterFault } from '../units/adapter'
import { readLamps } from '../units/unit-lamps'
import { judgePath } from '../prove/path'
import { judgeRooms, measured, roomFloor, sourceOf } from '../prove/rooms'
import { standing, thingsOf, type VisitRecord } from '../../record/record'
import type { Policy } from '../../policy/standard'
import type { Observed } from './belief'

/** An answer that the record holds already, and where it is from. */
export interface KnownAnswer {
  answer: string
  from: string
}

/** From this signal on a measurement counts as one beside the unit, dBm. */
const BESIDE_DBM = -62

const conditionAnswer: Partial<Record<string, string>> = {
  good: 'good',
  weak: 'weak',
  'no-link': 'no-link',
  ready: 'ready',
  failed: 'failed',
  'no-internet': 'no-internet',
  'radio-off': 'radio-off',
  off: 'dark',
  'as-router': 'good',
  'as-access-point': 'good'
}

/** Whether a version is below what is approved or withdrawn; undefined where that is not known. */
function firmwareSeen({ firmware: { releases, minimum } }: Model, runs: string): 'old' | 'approved' | undefined {
  if (releaseOf(releases, runs)?.withdrawn) return 'old'
  return ({ older: 'old', same: 'approved', newer: 'approved', unknown: undefined } as const)[
    knownOrder(runs, minimum, releases)
  ]
}

/** What the record knows already of a complaint about a unit, and maybe a room: nobody is asked it again. */
export function knownAnswers(
  record: VisitRecord,
  catalogue: Catalogue,
  policy: Policy,
  about: { unit?: string | undefined; room?: string | undefined }
): Partial<Record<string, KnownAnswer>> {
  const known: Partial<Record<string, KnownAnswer>> = {}
  const units = standing(record.units)
  const unit = units.find(({ id }) => id === about.unit)
  const line = units.find(({ facts }) => facts.role === 'modem' || facts.role === 'gateway')
  const router = units.find(({ facts }) => facts.role === 'router')
  const modelOf = (one: (typeof units)[number]) =>
    catalogue.get(modelKey(one.facts.model ?? '', one.facts.modelVersion ?? 1))
  const lamp = (one: (typeof units)[number] | undefined): string | undefined => {
    const model = one && modelOf(one)
    if (!one || !model || one.sightings.length === 0) return undefined
    const { state } = readLamps(one, model)
    if (state?.is) return conditionAnswer[state.is] ?? state.is
    return state?.good ? 'good' : undefined
  }
  const tell = (id: string, answer: string | undefined | null, from: string) => {
    if (answer !== undefined && answer !== null) known[id] = { answer, from }
  }
  const lineLamp = lamp(line)
  tell(
    'line-lamp',
    lineLamp === 'good' || lineLamp === 'dark'
      ? lineLamp
      : lineLamp === 'no-line' || lineLamp === 'line-seeking' || lineLamp === 'line-training'
        ? 'no-line'
        : lineLamp === 'login-refused' || lineLamp === 'line-login'
          ? 'login'
          : undefined,
    'the last sighting of its lamps'
  )
  if (router && router.id !== unit?.id) {
    const said = lamp(router)
    tell(
      'router-lamp',
      said !== undefined && ['good', 'no-internet', 'radio-off', 'dark'].includes(said) ? said : undefined,
      'the last sighting of its lamps'
    )
  }
  if (unit && unit.id !== line?.id) {
    const said = lamp(unit)
    tell(
      'unit-lamp',
      said !== undefined &&
        ['good', 'weak', 'no-link', 'ready', 'failed', 'no-internet', 'radio-off', 'dark'].includes(said)
        ? said
        : undefined,
      'the last sighting of its lamps'
    )
  }
  const source = sourceOf(record, catalogue)
  if (source?.down) tell('wired-modem', source.down.median > 0 ? 'yes' : 'no', 'the measurement at the source')
  const cables = standing(thingsOf(record, 'cable'))
  const touching = (id: string | undefined) =>
    cables.filter(
      ({ facts: { a, b } }) => id !== undefined && [a, b].some((end) => end?.thing === 'unit' && end.id === id)
    )
  const wan = touching(line?.id).find((cable) => touching(router?.id).includes(cable))
  const linkOf = (cable: (typeof cables)[number] | undefined) => {
    const speed = cable?.facts.linkMbps
    if (speed === undefined) return undefined
    return speed < Math.min(1000, cableMbps(cable!.facts) ?? 1000) ? 'slow' : 'full'
  }
  tell('wan-link', linkOf(wan), 'the link speed under Connect')
  if (unit) {
    const through = upstreamOf(record, catalogue).get(unit.id)?.through
    const own = touching(unit.id).find((cable) => cable !== wan && touching(through ?? undefined).includes(cable))
    tell('unit-link', linkOf(own), 'the link speed under Connect')
    const model = modelOf(unit)
    const runs = unit.facts.firmwareAfter ?? unit.facts.firmwareBefore
    if (model && runs !== undefined && model.firmware.releases.length > 0)
      tell('firmware', firmwareSeen(model, runs), 'the firmware recorded')
    const { adapterPlug, adapterVolts, adapterAmps } = unit.facts
    if (model?.power && adapterPlug !== undefined && adapterVolts !== undefined && adapterAmps !== undefined)
      tell(
        'adapter-label',
        adapterFault(model.power, unit.facts) === null ? 'own' : 'other',
        'what is printed on its adapter'
      )
    const lead = router ?? line
    const family = lead && modelOf(lead)?.family
    if (unit.facts.role === 'node' && model && lead)
      tell('family', model.family !== null && model.family === family ? 'same' : 'other', 'the catalogue')
    const [first, second] = [
      unit.pairing?.findLast(({ which }) => which === 'first'),
      unit.pairing?.findLast(({ which }) => which === 'second')
    ]
    if (first && second)
      tell(
        'pairing-time',
        (Date.parse(second.at) - Date.parse(first.at)) / 1000 <= (policy.pairWindowS ?? 120) ? 'in-time' : 'late',
        'the presses under Start up'
      )
    if (unit.path) {
      const { outcome } = judgePath(record, unit)
      const { before, after, address } = unit.path
      if (before !== undefined && after !== undefined)
        tell('client-count', after > before ? 'rises' : 'stays', 'the proof of path')
      tell(
        'address',
        /^169\.254\./.test(address)
          ? 'none'
          : outcome === 'breaks' && after !== undefined && before !== undefined && after > before
            ? 'other-range'
            : 'right',
        'the proof of path'
      )
    }
    const last = unit.events.findLast(
      ({ what }) => what === 'moved' || what === 'settings-changed' || what === 'updated'
    )
    if (last) tell('changed-last', last.what === 'moved' ? 'moved' : 'settings', 'the logbook')
  }
  const codes = new Set(checkCabling(record, catalogue).map(({ code }) => code))
  if (cables.length > 0)
    tell(
      'ports',
      codes.has('modem-to-lan') || codes.has('internet-port') || codes.has('wrong-end') ? 'wrong' : 'right',
      'the port map under Connect'
    )
  if (codes.has('two-dhcp')) tell('dhcp-servers', 'two', 'the port map under Connect')
  else if (standing(record.pools).length > 1) {
    const audit = auditRecord(record, policy.poolSchool)
    tell(
      'dhcp-servers',
      audit.findings.some(({ code }) => code === 'two-dhcp') ? 'two' : undefined,
      'the addresses under Configure'
    )
  }
  if (about.room !== undefined) {
    const [newest] = measured(record, catalogue, ({ at, room }) => at === 'room' && room === about.room)
    const floor = roomFloor(policy, source)
    if (
      newest?.down &&
      !newest.stale &&
      newest.down.median > 0 &&
      (unit === undefined || newest.measurement.facts.unit === unit.id)
    ) {
      const from = 'the measurement of the room'
      // Something came through, and on the unit's own air.
      for (const id of ['ping-number', 'name-lookup']) tell(id, 'yes', from)
      tell('network-name', 'ours', from)
      // Beside the unit is the room that it stands in: a strong signal elsewhere says nothing of its hop.
      const isBeside =
        unit?.facts.place !== undefined &&
        record.rooms?.[about.room]?.facts.name?.trim().toLowerCase() === unit.facts.place.trim().toLowerCase()
      if (isBeside && (newest.measurement.facts.dbm ?? -100) >= BESIDE_DBM)
        tell('wifi-unit', newest.down.median >= floor.mbps ? 'yes' : 'slow', from)
      const rest = judgeRooms(record, catalogue, policy).filter(
        ({ room, bands }) => room.id !== about.room && bands[0]?.down && !bands[0].stale
      )
      if (rest.length > 0)
        tell(
          'others',
          rest.some(({ outcome, bands }) => outcome === 'holds' || bands[0]!.down!.median >= floor.mbps)
            ? 'fine'
            : 'slow',
          'the measurements of the other rooms'
        )
    }
    if (newest?.measurement.facts.dbm !== undefined && !newest.stale)
      tell(
        'signal-room',
        newest.measurement.facts.dbm >= (policy.roomDbm ?? -67) ? 'good' : 'weak',
        'the measurement of the room'
      )
  }
  return known
}

/** What is known and what was answered, together: an answer given in the search goes before what the record says. */
export function withKnown(known: Partial<Record<string, KnownAnswer>>, answered: Observed): Observed {
  return { ...Object.fromEntries(Object.entries(known).map(([id, one]) => [id, one!.answer])), ...answered }
}
