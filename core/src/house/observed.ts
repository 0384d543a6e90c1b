import { releaseOf } from '../catalogue/firmware-order'
import { compareVersions } from '../values/version'
import type { Observed } from '../work/diagnose/belief'
import { observations, type ObservationId } from '../work/diagnose/observations'
import type { House } from './house'
import { arrivesAt, busyShare, measureAir, sendsNow } from './measure'
import { hangsOnLine, hops, rangeOf, type CableNow } from './moment'
import { Scene, type HouseComplaint } from './scene'

const WEAK_DBM = -67
const BUSY = 0.5
const FULL_MBPS = 1000
/** What other lamps tell of that a router's or the line's tell too. */
const overall = ['dark', 'starts-over', 'radio-off', 'no-internet']

const swapped = (cable: CableNow | undefined) => {
  if (!cable) return null
  return cable.bad ? 'helped' : 'not'
}

/** What a scene tells to each observation; null where it does not apply there, or cannot be told. */
const answers: Record<ObservationId, (scene: Scene) => string | null> = {
  'line-lamp': (scene) => {
    const { line } = scene
    if (!line) return null
    const out = scene.outOf(line)
    if (out) return out
    if (['no-line', 'line-seeking', 'line-training'].includes(line.condition)) return 'no-line'
    return line.condition === 'login-refused' || line.condition === 'line-login' ? 'login' : 'good'
  },
  'router-lamp': (scene) => {
    const { router, id } = scene
    if (!router || router.definition.id === id) return null
    const found = scene.lamp(router)
    return overall.includes(found) ? found : 'good'
  },
  'unit-lamp': (scene) => {
    return hangsOnLine(scene.unit) ? null : scene.lamp(scene.unit)
  },
  'network-name': ({ astray }) => (astray ? 'other' : 'ours'),
  address: ({ astray, house, id, unit, head }) => {
    if (astray) return 'other-range'
    if (!sendsNow(unit)) return null
    const servers = house.network.serversOf(id)
    if (servers.length === 0) return 'none'
    const given = house.units.get(servers[(house.definition.seed + Math.round(house.now)) % servers.length]!)!
    const isOther = head && rangeOf(given.running['lan.address']) !== rangeOf(head.running['lan.address'])
    return isOther && servers.length > 1 ? 'other-range' : 'right'
  },
  'client-count': ({ astray, unit }) => (astray || !sendsNow(unit) ? 'stays' : 'rises'),
  ports: ({ router, wan }) => {
    if (!router || !wan) return null
    if (router.model.ports.every(({ kind }) => kind !== 'internet')) return 'right'
    const end = [wan.a, wan.b].find((candidate) => candidate?.unit === router.definition.id)
    return router.model.ports.find(({ id: port }) => port === end?.port)?.kind === 'internet' ? 'right' : 'wrong'
  },
  'wan-link': (scene) => {
    const { wan, house } = scene
    if (wan?.kind !== 'network') return null
    return scene.link(wan, (mbps) => mbps < Math.min(FULL_MBPS, house.definition.line.speedDownMbps))
  },
  'unit-link': (scene) => {
    const { own } = scene
    return own ? scene.link(own, (mbps) => mbps < FULL_MBPS && own.category === 'cat5') : null
  },
  'swap-wan-cable': ({ wan }) => swapped(wan),
  'swap-unit-cable': ({ own }) => swapped(own),
  'adapter-label': ({ unit }) => {
    if (unit.model.power === null) return null
    return unit.rightAdapter ? 'own' : 'other'
  },
  'wired-router': (scene) => {
    const { head, house } = scene
    if (!head) return null
    return scene.works(head) ? scene.atSpeed(arrivesAt(house, head.definition.id).mbps) : 'no'
  },
  'wifi-router': (scene) => {
    const { router, id, where } = scene
    if (!router || router.definition.id === id || router.model.radios.length === 0) return null
    return scene.air(router, router.at ?? where)
  },
  'wifi-unit': (scene) => {
    const { unit, where, astray } = scene
    if (unit.model.radios.length === 0) return null
    return astray ? 'no' : scene.air(unit, unit.at ?? where)
  },
  others: (scene) => {
    const { all, id, phone, head, house, where } = scene
    const rest = all.filter(
      (unit) => unit.definition.id !== id && sendsNow(unit) && unit.definition.id !== phone?.definition.id
    )
    if (!scene.works(head)) return 'down'
    if (rest.length === 0) return null
    const isSlow = rest.every(
      (unit) => scene.atSpeed(measureAir(house, unit.at ?? where, unit.definition.id).run?.downMbps ?? 0) === 'slow'
    )
    return isSlow ? 'slow' : 'fine'
  },
  rejoin: ({ astray, house, id }) => (astray || house.fault('wrong-key', id) ? 'helped' : 'not'),
  'wired-modem': ({ line, head, house, namesFound }) => {
    if (!line) return null
    return house.network.online.has(line.definition.id) && (namesFound || line !== head) ? 'yes' : 'no'
  },
  'provider-status': ({ house }) => (house.fault('dead-line') ? 'outage' : 'none'),
  'ping-number': ({ astray, unit, house, id }) =>
    astray || !sendsNow(unit) || !house.network.online.has(id) ? 'no' : 'yes',
  'name-lookup': (scene) => (scene.astray || !sendsNow(scene.unit) || !scene.works(scene.unit) ? 'no' : 'yes'),
  'wan-address': (scene) => {
    const { router, line, wan, house } = scene
    if (!router || !line) return null
    if (!wan || wan.bad || answers.ports(scene) === 'wrong') return 'none'
    const isSame = rangeOf(line.running['lan.address']) === rangeOf(router.running['lan.address'])
    if (line.definition.role === 'gateway' && isSame) return 'same-range'
    return house.network.online.has(line.definition.id) ? 'fine' : 'none'
  },
  'dhcp-servers': ({ head, house, id }) => {
    if (!head) return null
    const most = Math.max(...[id, head.definition.id].map((unit) => house.network.serversOf(unit).length))
    return most > 1 ? 'two' : 'one'
  },
  'duplicate-address': ({ unit, all, id, hangs }) => {
    const address = unit.running['lan.address']
    const isTaken = all.some(
      (candidate) => candidate.definition.id !== id && candidate.powered && candidate.running['lan.address'] === address
    )
    return address && isTaken && hangs ? 'yes' : 'no'
  },
  firmware: ({ unit }) => {
    const { releases, minimum } = unit.model.firmware
    if (releases.length === 0) return null
    const isOld = releaseOf(releases, unit.firmware)?.withdrawn || compareVersions(unit.firmware, minimum) < 0
    return isOld ? 'old' : 'approved'
  },
  'hop-signal': (scene) => {
    const { unit, house, id, head } = scene
    return hops(unit) && !house.network.wired(id) && head ? scene.hopSignal(head) : null
  },
  'signal-room': ({ unit, house, id, where }) =>
    sendsNow(unit) && (house.signalAt(id, where)?.dbm ?? -120) >= WEAK_DBM ? 'good' : 'weak',
  'channel-busy': ({ unit, house, id, where }) => {
    if (!sendsNow(unit)) return null
    return busyShare(house, unit, house.signalAt(id, where)?.band ?? '5') > BUSY ? 'busy' : 'quiet'
  },
  family: ({ unit, head, router }) => {
    if (unit.definition.role !== 'node' || !head) return null
    return unit.model.family !== null && unit.model.family === router?.model.family ? 'same' : 'other'
  },
  'pairing-time': (scene) => {
    const { unit, house, id, router } = scene
    if (!hops(unit) || scene.outOf(unit) || unit.condition === 'off') return null
    const isFamily = unit.model.family === (router?.model.family ?? unit.model.family)
    return !unit.configured && !house.fault('wrong-key', id) && isFamily ? 'late' : 'in-time'
  },
  // A house has one phone.
  'other-device': () => null,
  'shared-radio': ({ unit, house, id }) => {
    if (!hops(unit) || house.network.wired(id)) return null
    return unit.model.radios.filter(({ band }) => band === '5').length > 1 ? 'own' : 'shared'
  },
  'powerline-rate': ({ unit }) => {
    if (unit.definition.role !== 'powerline-adapter') return null
    return ({ good: 'good', weak: 'poor' } as const)[unit.condition as 'good' | 'weak'] ?? 'none'
  },
  'restart-modem': ({ line, house }) =>
    line?.stuck && house.fault('stuck-modem', line.definition.id) ? 'helped' : 'not',
  'restart-unit': () => 'not',
  // Nobody asks a house what its people did.
  'changed-last': () => null
}

/**
 * What somebody truthful would answer to an observation in a house; null where it does not apply there, or cannot be told.
 */
export function observeHouse(house: House, complaint: HouseComplaint, observation: ObservationId): string | null {
  return house.units.has(complaint.unit) ? answers[observation](new Scene(house, complaint)) : null
}

/** Every observation that can be made in a house, answered. */
export function observeAll(house: House, complaint: HouseComplaint): Observed {
  if (!house.units.has(complaint.unit)) return {}
  const scene = new Scene(house, complaint)
  return Object.fromEntries(
    observations.flatMap(({ id }) => {
      const answer = answers[id](scene)
      return answer === null ? [] : [[id, answer]]
    })
  )
}
