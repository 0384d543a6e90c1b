import type { Placed } from '@pasado/core/record/entry'
import { complete, idOf, router, study } from '@pasado/testing/logbook'

/** How many units the long visit has. */
const UNITS = 12

/** A visit as long as they come: twelve units, and so many entries as technicians write in a week of looking again and again. */
export function longVisit(entries: number): readonly Placed[] {
  const log = complete()
  const nodes = Array.from({ length: UNITS - 2 }, (_, at) => idOf(`n${at}`))
  for (const [at, node] of nodes.entries()) {
    log
      .write('unit.set', {
        id: node,
        set: {
          name: `Node ${at + 3}`,
          model: 'ostrel-tern',
          modelVersion: 1,
          role: 'node',
          serial: `TE1-${at + 3}`,
          mac: `00:00:5e:00:53:${(at + 16).toString(16)}`,
          place: `room ${at + 3}`,
          heightM: 1.1,
          method: 'push-button',
          firmwareBefore: '2.8.1',
          updates: 'automatic',
          localAdminOnly: true,
          remoteAdmin: 'off',
          accountOwner: 'customer',
          technicianRemoved: true,
          autoChannels: true,
          pushButton: 'off'
        }
      })
      .secret('admin-password', 'unit', node)
      .write('host.set', {
        id: idOf(`h${at}`),
        set: { unit: node, segment: idOf('home'), address: `192.168.1.${at + 30}` }
      })
      .write('room.set', { id: idOf(`r${at}`), set: { name: `Room ${at + 3}`, listed: true } })
  }
  for (let turn = 0; log.entries.length < entries; turn++) {
    const at = turn % nodes.length
    const [node, host, room] = [nodes[at]!, idOf(`h${at}`), idOf(`r${at}`)]
    switch (Math.floor(turn / nodes.length) % 8) {
      case 0:
        log.write('lamp.seen', { unit: node, lamps: [{ lamp: 'status', colour: 'blue', pattern: 'blink' }] })
        break
      case 1:
        log.write('lamp.seen', { unit: node, lamps: [{ lamp: 'status', colour: 'white', pattern: 'solid' }] })
        break
      case 2:
        log.write('unit.set', { id: node, set: { firmwareAfter: turn % 3 ? '3.1.0' : '3.0.9' } })
        break
      case 3:
        log.write('host.set', { id: host, set: { address: `192.168.1.${30 + at + (turn % 2 ? 0 : 12)}` } })
        break
      case 4:
        log.write('rule.answered', { rule: 'place-clear', subject: node, answer: turn % 3 ? 'yes' : 'no' })
        break
      case 5:
        log.write('measurement.set', {
          id: idOf(`m${turn}`),
          set: {
            at: 'room',
            room,
            unit: node,
            band: '5',
            dbm: -50 - (turn % 20),
            runs: [{ downMbps: 200 + (turn % 50) }],
            by: 'phone',
            how: 'typed'
          }
        })
        break
      case 6:
        log.write('path.seen', { unit: node, before: 0, after: 1, address: `192.168.1.${110 + at}`, server: router })
        break
      default:
        log.write('unit.event', { unit: node, what: 'tested-good' })
    }
  }
  log.write('measurement.set', { id: idOf('again'), set: { at: 'room', room: study, dbm: -61 } })
  return log.entries
}
