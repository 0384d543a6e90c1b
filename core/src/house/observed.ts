import { releaseOf } from '../catalogue/firmware-order'
import { compareVersions } from '../values/version'
import type { Observed } from '../work/diagnose/belief'
import { observations, type ObservationId } from '../work/diagnose/observations'
import { GOOD_DBM, LEAST_DBM } from './conditions'
import type { Where } from './definition'
import type { House } from './house'
import { arrivesAt, busyShare, measureAir, measureCable, sendsNow } from './measure'
import type { UnitNow } from './moment'

/** What a search in a house is about: a unit, and the place where it does not work. */
export interface HouseComplaint {
  unit: string
  where: Where
}

const SLOW_SHARE = 0.45
const WEAK_DBM = -67
const BUSY = 0.5

const range = (address: string | null | undefined) => address?.split('.').slice(0, 3).join('.') ?? null

/**
 * What somebody truthful would answer to an observation in a house; null where it does not apply there, or cannot be told.
 */
export function observeHouse(
  house: House,
  { unit: id, where }: HouseComplaint,
  observation: ObservationId
): string | null {
  const unit = house.units.get(id)
  if (!unit) return null
  const all = [...house.units.values()]
  const line = all.find(({ definition }) => definition.role === 'modem' || definition.role === 'gateway')
  const router = all.find(
    ({ definition, running }) =>
      definition.role === 'router' && (running.mode ?? 'router') === 'router' && definition.id !== line?.definition.id
  )
  const head = router ?? line
  const phone = house.phone === null ? undefined : house.units.get(house.phone)
  const astray =
    phone !== undefined &&
    phone.definition.id !== id &&
    !house.network.online.has(phone.definition.id) &&
    phone.running['wifi.ssid'] !== head?.running['wifi.ssid']
  const wan = [...house.cables.values()].find(
    ({ a, b }) => [a?.unit, b?.unit].includes(line?.definition.id) && [a?.unit, b?.unit].includes(router?.definition.id)
  )
  const own = [...house.cables.values()].find(
    ({ kind, a, b }) =>
      kind === 'network' &&
      [a?.unit, b?.unit].includes(id) &&
      ![a?.unit, b?.unit].includes('line') &&
      id !== head?.definition.id
  )
  const beside: Where = unit.at ?? where
  const sees = () => measureAir(house, beside, id)
  const source = line ? (measureCable(house, line.definition.id).downMbps ?? 0) : 0
  const fairShare = Math.min(100, source)
  const atSpeed = (mbps: number) => (mbps >= fairShare * SLOW_SHARE ? 'yes' : 'slow')
  const namesFound = house.fault('names-not-found') === undefined || head?.running['lan.dns'] === 'by-hand'
  const works = (one: UnitNow | undefined) =>
    one !== undefined && house.network.online.has(one.definition.id) && namesFound
  const lamp = (one: UnitNow): string => {
    if (!one.powered) return 'dark'
    if (house.fault('broken-unit', one.definition.id) || !one.rightAdapter) return 'starts-over'
    return (
      {
        weak: 'weak',
        'no-link': 'no-link',
        ready: 'ready',
        failed: 'failed',
        'no-internet': 'no-internet',
        'radio-off': 'radio-off',
        off: 'dark'
      }[one.condition as string] ?? 'good'
    )
  }
  const over = (one: UnitNow) => {
    const found = lamp(one)
    return ['dark', 'starts-over', 'radio-off', 'no-internet'].includes(found) ? found : 'good'
  }
  const airOf = (one: UnitNow | undefined, measured: () => ReturnType<typeof measureAir>) => {
    if (!one || !sendsNow(one)) return 'no-network'
    const { run } = measured()
    if (!run) return 'no-network'
    return !works(one) ? 'no' : atSpeed(run.downMbps ?? 0)
  }
  switch (observation) {
    case 'line-lamp': {
      if (!line) return null
      const { condition } = line
      if (!line.powered) return 'dark'
      if (house.fault('broken-unit', line.definition.id) || !line.rightAdapter) return 'starts-over'
      if (condition === 'no-line' || condition === 'line-seeking' || condition === 'line-training') return 'no-line'
      return condition === 'login-refused' || condition === 'line-login' ? 'login' : 'good'
    }
    case 'router-lamp':
      return router && router.definition.id !== id ? over(router) : null
    case 'unit-lamp':
      return unit.definition.role === 'modem' || unit.definition.role === 'gateway' ? null : lamp(unit)
    case 'network-name':
      return astray ? 'other' : 'ours'
    case 'address': {
      if (astray) return 'other-range'
      if (!sendsNow(unit)) return null
      const servers = house.network.serversOf(id)
      if (servers.length === 0) return 'none'
      const given = house.units.get(servers[(house.definition.seed + Math.round(house.now)) % servers.length]!)!
      return head && range(given.running['lan.address']) !== range(head.running['lan.address']) && servers.length > 1
        ? 'other-range'
        : 'right'
    }
    case 'client-count':
      return astray || !sendsNow(unit) ? 'stays' : 'rises'
    case 'ports': {
      if (!router || !wan) return null
      if (router.model.ports.every(({ kind }) => kind !== 'internet')) return 'right'
      const end = [wan.a, wan.b].find((one) => one?.unit === router.definition.id)
      return router.model.ports.find(({ id: port }) => port === end?.port)?.kind === 'internet' ? 'right' : 'wrong'
    }
    case 'wan-link':
      if (wan && wan.kind === 'network') {
        if (house.network.linkMbps(wan.id) === 0) return 'none'
        return house.network.linkMbps(wan.id) < Math.min(1000, house.definition.line.speedDownMbps) ? 'slow' : 'full'
      }
      return null
    case 'unit-link':
      if (own && wan !== own) {
        if (house.network.linkMbps(own.id) === 0) return 'none'
        return house.network.linkMbps(own.id) < 1000 && own.category === 'cat5' ? 'slow' : 'full'
      }
      return null
    case 'swap-wan-cable':
      if (wan) {
        return wan.bad ? 'helped' : 'not'
      }
      return null
    case 'swap-unit-cable':
      if (own && wan !== own) {
        return own.bad ? 'helped' : 'not'
      }
      return null
    case 'adapter-label':
      if (unit.model.power === null) return null
      return unit.rightAdapter ? 'own' : 'other'
    case 'wired-router':
      if (head) {
        return works(head) ? atSpeed(arrivesAt(house, head.definition.id).mbps) : 'no'
      }
      return null
    case 'wifi-router':
      return router && router.definition.id !== id && router.model.radios.length
        ? airOf(router, () => measureAir(house, router.at ?? where, router.definition.id))
        : null
    case 'wifi-unit':
      if (unit.model.radios.length === 0) return null
      return astray ? 'no' : airOf(unit, sees)
    case 'others': {
      const rest = all.filter(
        (one) => one.definition.id !== id && sendsNow(one) && one.definition.id !== phone?.definition.id
      )
      if (!works(head)) return 'down'
      if (rest.length === 0) return null
      const slow = rest.every((one) => {
        const { run } = measureAir(house, one.at ?? where, one.definition.id)
        return atSpeed(run?.downMbps ?? 0) === 'slow'
      })
      return slow ? 'slow' : 'fine'
    }
    case 'rejoin':
      return astray || house.fault('wrong-key', id) ? 'helped' : 'not'
    case 'wired-modem':
      if (line) {
        return house.network.online.has(line.definition.id) && (namesFound || line !== head) ? 'yes' : 'no'
      }
      return null
    case 'provider-status':
      return house.fault('dead-line') ? 'outage' : 'none'
    case 'ping-number':
      return astray || !sendsNow(unit) || !house.network.online.has(id) ? 'no' : 'yes'
    case 'name-lookup':
      return astray || !sendsNow(unit) || !works(unit) ? 'no' : 'yes'
    case 'wan-address': {
      if (!router || !line) return null
      if (!wan || wan.bad || observeHouse(house, { unit: id, where }, 'ports') === 'wrong') return 'none'
      if (
        line.definition.role === 'gateway' &&
        range(line.running['lan.address']) === range(router.running['lan.address'])
      )
        return 'same-range'
      return house.network.online.has(line.definition.id) ? 'fine' : 'none'
    }
    case 'dhcp-servers':
      return head
        ? house.network.serversOf(id).length > 1 || house.network.serversOf(head.definition.id).length > 1
          ? 'two'
          : 'one'
        : null
    case 'duplicate-address': {
      const address = unit.running['lan.address']
      return address !== undefined &&
        address !== '' &&
        all.some((one) => one.definition.id !== id && one.powered && one.running['lan.address'] === address) &&
        own !== undefined
        ? 'yes'
        : 'no'
    }
    case 'firmware': {
      if (unit.model.firmware.releases.length === 0) return null
      const { releases, minimum } = unit.model.firmware
      return releaseOf(releases, unit.firmware)?.withdrawn || compareVersions(unit.firmware, minimum) < 0
        ? 'old'
        : 'approved'
    }
    case 'hop-signal': {
      if ((unit.definition.role !== 'node' && unit.definition.role !== 'extender') || house.network.wired(id) || !head)
        return null
      const dbm = house.signal(head.definition.id, id)
      return dbm < LEAST_DBM ? 'none' : dbm < GOOD_DBM ? 'weak' : 'good'
    }
    case 'signal-room':
      return sendsNow(unit) ? ((house.signalAt(id, where)?.dbm ?? -120) < WEAK_DBM ? 'weak' : 'good') : 'weak'
    case 'channel-busy':
      return sendsNow(unit)
        ? busyShare(house, unit, house.signalAt(id, where)?.band ?? '5') > BUSY
          ? 'busy'
          : 'quiet'
        : null
    case 'family':
      return unit.definition.role === 'node' && head
        ? unit.model.family !== null && unit.model.family === router?.model.family
          ? 'same'
          : 'other'
        : null
    case 'pairing-time':
      return (unit.definition.role === 'node' || unit.definition.role === 'extender') &&
        lamp(unit) !== 'dark' &&
        lamp(unit) !== 'starts-over'
        ? !unit.configured &&
          !house.fault('wrong-key', id) &&
          unit.model.family === (router?.model.family ?? unit.model.family)
          ? 'late'
          : 'in-time'
        : null
    case 'restart-modem':
      return line && house.fault('stuck-modem', line.definition.id) && line.stuck ? 'helped' : 'not'
    case 'restart-unit':
      return 'not'
    // Nobody asks a house what its people did.
    case 'changed-last':
      return null
  }
}

/** Every observation that can be made in a house, answered. */
export function observeAll(house: House, complaint: HouseComplaint): Observed {
  return Object.fromEntries(
    observations.flatMap(({ id }) => {
      const answer = observeHouse(house, complaint, id)
      return answer === null ? [] : [[id, answer]]
    })
  )
}
