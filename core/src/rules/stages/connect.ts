import { hasSeen } from '../../history/history'
import { proofOf } from '../../history/proof'
import { restsOnCable } from '../../history/stands'
import { checkCabling } from '../../work/cabling/check'
import { cablesOf, where, type CableProblem } from '../../work/cabling/known-cable'
import { judgeFarEnd } from '../../work/cabling/far-end'
import { fittingName } from '../../work/cabling/ports'
import { modelOf } from '../../catalogue/model'
import { equipmentHere, isModem } from '../../record/equipment'
import { standing, thingsOf } from '../../record/record'
import { asVerdict, atCable, cablesAt, problemsOf } from './cables-of-home'
import { cablePower } from './connect-power'
import { aboutUnit, atBrief, breaks, holds, rule, unproven } from '../rule'
import type { Home, Place, Rule, Verdict } from '../rule'
import { isAccessPoint } from '../../work/units/known-unit'

/** What makes a cable wrong in itself, wherever it leads. */
const mapFaults: ReadonlySet<CableProblem['code']> = new Set([
  'wrong-end',
  'wrong-kind',
  'same-port',
  'port-taken',
  'loop',
  'two-dhcp'
])

export const cableMode = rule({
  id: 'cable-mode',
  name: 'Ports by mode',
  stage: 'connect',
  level: 'must',
  minutes: 3,
  needs: ['role'],
  statement:
    'Router mode: internet port to modem. Access-point mode: LAN to LAN, nothing in the internet port (unless the model switches modes itself).',
  judge: (home) =>
    home.units.flatMap((known): Verdict[] => {
      const { role } = known.unit.facts
      if (role !== 'router' && role !== 'access-point' && role !== 'gateway') return []
      const about = aboutUnit(known)
      const all = checkCabling(home.record, home.catalogue)
      const wrong = all.filter(
        ({ unit, code }) => unit === known.unit.id && (code === 'internet-port' || code === 'modem-to-lan')
      )
      if (wrong.length) return wrong.map((problem) => asVerdict(problem, home))
      const drawn = cablesOf(home.record, home.catalogue)
      const cables = cablesAt(home, known.unit.id)
      const line = known.model?.ports.find(
        ({ kind }) => kind === 'coax' || kind === 'telephone-line' || kind === 'fibre'
      )
      // A router of ours wants the internet where its model has a port for it; models without one find out by themselves.
      const internet = isAccessPoint(known) ? null : known.model?.ports.find(({ kind }) => kind === 'internet')
      const wants = role === 'gateway' ? line : internet
      const missing = (message: string) =>
        unproven(
          message,
          'Draw the cable that leads there.',
          { stage: 'connect', kind: 'cable', id: 'new', field: known.unit.id },
          about
        )
      const judged = (
        { cable, other }: (typeof cables)[number],
        side: string,
        wanted: 'internet' | 'lan' | 'line'
      ): Verdict => {
        // What the port map calls wrong is wrong here too.
        const told = all.find(
          (problem) => problem.cable === cable.id && problem.outcome === 'breaks' && mapFaults.has(problem.code)
        )
        if (told) return breaks(told.message, told.remedy, atCable(cable.id), about)
        const far = judgeFarEnd(home.record, other, wanted, drawn)
        if (far.kind === 'right') return holds(`${side} leads to ${far.name}.`, about)
        return far.kind === 'wrong'
          ? breaks(
              `${side}: ${far.message}.`,
              'Lead it to where the home’s network comes from.',
              atCable(cable.id),
              about
            )
          : unproven(`${side}: ${far.message}.`, 'Record where it leads.', atCable(cable.id), about)
      }
      if (wants) {
        const inPort = cables.find(({ port }) => port.end.port === wants.id)
        return [
          inPort
            ? judged(inPort, `Its port ${wants.name}`, role === 'gateway' ? 'line' : 'internet')
            : missing(`No cable is recorded in its port ${wants.name}.`)
        ]
      }
      // Its other LAN ports may well lead to what only takes: a computer there is no fault.
      const lan = cables
        .filter(({ port }) => port.kind === 'lan')
        .map((cable) => ({ ...cable, far: judgeFarEnd(home.record, cable.other, 'lan', drawn) }))
        .filter(({ far }) => far.kind !== 'wrong')
      const led = lan.find(({ far }) => far.kind === 'right') ?? lan[0]
      return [led ? judged(led, 'LAN', 'lan') : missing('No cable to the router’s side is recorded at it.')]
    })
})

export const cableModemRestart = rule({
  id: 'cable-modem-restart',
  name: 'Modem restarted',
  stage: 'connect',
  level: 'should',
  minutes: 5,
  needs: ['model', 'role'],
  statement: 'The modem was restarted after the cable was put in, and left to settle.',
  judge: (home) =>
    equipmentHere(home.record)
      .filter(isModem)
      .flatMap((modem): Verdict[] => {
        // Only a cable to another unit asks for it: a gateway by itself is started once anyway.
        const put = cablesAt(home, modem.id)
          .filter(({ port, other }) => port.kind === 'lan' && other?.kind === 'internet')
          .flatMap(({ cable: { id } }) => restsOnCable(id, 'its cable', true))
        if (put.length === 0) return []
        const about = { id: modem.id, name: modem.name }
        const restarts = modem.thing.events.filter(({ what }) => what === 'restarted' || what === 'powered')
        const restart = proofOf(home.history, restarts, () => put)
        if (!restart || restart.changes.length > 0)
          return [
            unproven(
              'It has not been restarted since the cable was put in.',
              'Switch it off, lights out, battery out, and on again; then leave it until its lights settle.',
              { stage: 'connect', kind: modem.unit ? 'unit' : 'stays', id: modem.id, field: 'restart' },
              about
            )
          ]
        if (!modelOf(modem.thing, home.catalogue)?.lamps.length)
          return [holds('It was restarted after the cable was put in.', about)]
        if (!modem.thing.sightings.some(({ seq }) => hasSeen(home.history, seq, restart.line.seq)))
          return [
            unproven(
              'It was restarted, and nobody has looked since whether its lights have settled.',
              'Look at its lamps.',
              { stage: modem.stays ? 'connect' : 'start', kind: 'lamp', id: modem.id, field: 'lamp' },
              about
            )
          ]
        return [holds('It was restarted after the cable was put in, and looked at since.', about)]
      })
})

export const cableSpeed = rule({
  id: 'cable-speed',
  name: 'Link speed',
  stage: 'connect',
  level: 'must',
  minutes: 4,
  statement: 'No link came up slower than the speed paid for or than both ends can do.',
  judge: (home) => {
    const network = cablesOf(home.record, home.catalogue).filter(
      ({ a, b }) =>
        a &&
        b &&
        (a.kind === 'internet' || a.kind === 'lan') &&
        (b.kind === 'internet' || b.kind === 'lan' || b.kind === 'socket')
    )
    const wrong = problemsOf(
      home,
      'end-missing',
      'slow',
      'slower-than-paid',
      'speed-missing',
      'too-long',
      'port-taken',
      'port-gone',
      'wrong-kind',
      'same-port',
      'loop',
      'two-dhcp'
    )
    if (wrong.length) return wrong.map((problem) => asVerdict(problem, home))
    if (network.length > 0 && home.record.brief.facts.speedDownMbps === undefined)
      return [unproven('The speed paid for is not recorded.', 'Enter it under Brief.', atBrief('speedDownMbps'))]
    return network.length === 0
      ? []
      : [holds(`${network.length} ${network.length === 1 ? 'link' : 'links'}, each as fast as both ends.`)]
  }
})

/** Telephones that hang on the wall or on a splitter although the telephone's line goes through the gateway: no call gets to them. */
function telephonesBeside({ record, catalogue }: Home): Verdict[] {
  if (record.brief.facts.telephone !== true) return []
  return cablesOf(record, catalogue).flatMap(({ cable, a, b }) => {
    const ends = [a, b]
    const telephone = ends.find((port) => port?.end.thing === 'fitting' && port.kind === 'telephone')
    const other = ends.find((port) => port !== telephone)
    if (!telephone || !other || (other.end.thing !== 'outlet' && other.kind !== 'splitter-phone')) return []
    return breaks(
      `${telephone.owner} hangs on ${where(other)}, and its line goes through the gateway.`,
      'Lead it to the telephone port of the gateway.',
      atCable(cable.id)
    )
  })
}

export const cableSplitter = rule({
  id: 'cable-splitter',
  name: 'Sides of the splitter',
  stage: 'connect',
  level: 'must',
  minutes: 3,
  statement:
    'Splitter: line, modem and telephone each on their own side; a telephone whose line goes through the gateway is on the gateway.',
  judge: (home) => {
    const beside = telephonesBeside(home)
    if (beside.length) return beside
    const splitters = standing(thingsOf(home.record, 'fitting')).filter(({ facts }) => facts.kind === 'splitter')
    if (splitters.length === 0) return []
    const wrong = problemsOf(home, 'splitter-side')
    if (wrong.length) return wrong.map((problem) => asVerdict(problem, home))
    const cables = cablesOf(home.record, home.catalogue)
    return splitters.map((splitter) => {
      const sides = new Set(
        cables.flatMap(({ a, b }) => [a, b]).flatMap((port) => (port?.end.id === splitter.id ? [port.end.port] : []))
      )
      const open = ['line', 'modem'].filter((side) => !sides.has(side))
      if (open.length)
        return unproven(
          `${fittingName(splitter)}: no cable is recorded on its ${open.join(' and ')} side.`,
          'Draw the cables that lead there.',
          { stage: 'connect', kind: 'fitting', id: splitter.id, field: 'kind' }
        )
      return holds(`${fittingName(splitter)}: every side is where it belongs.`)
    })
  }
})

export const cableOldKit = rule({
  id: 'cable-old-kit',
  name: 'Old equipment',
  stage: 'connect',
  level: 'should',
  minutes: 3,
  statement: 'Old equipment is disconnected, and what returns to the provider is recorded.',
  judge: (home) => {
    const old = standing(thingsOf(home.record, 'fitting')).filter(({ facts }) => facts.kind?.startsWith('old-'))
    const at = (id: string, field: string): Place => ({ stage: 'connect', kind: 'fitting', id, field })
    if (old.length === 0)
      return home.record.brief.facts.reason === 'swap'
        ? [
            unproven(
              'Something is swapped, and no old equipment is recorded.',
              'Record what was there, and where it goes.',
              at('new', 'old')
            )
          ]
        : []
    return old.map((fitting) => {
      const name = fittingName(fitting)
      if (!fitting.facts.disconnected)
        return breaks(
          `${name} is not recorded as disconnected.`,
          'Disconnect it, and say so.',
          at(fitting.id, 'disconnected')
        )
      if (fitting.facts.returns === undefined)
        return unproven(
          `Where ${name} goes is not recorded.`,
          'Say whether it returns to the provider.',
          at(fitting.id, 'returns')
        )
      return holds(
        `${name} is disconnected and ${{ provider: 'returns to the provider', customer: 'stays with the customer', recycled: 'is recycled' }[fitting.facts.returns]}.`
      )
    })
  }
})

/** Rules of Connect. */
export const connectRules: readonly Rule[] = [
  cableMode,
  cableModemRestart,
  cableSpeed,
  cableSplitter,
  cablePower,
  cableOldKit
]
