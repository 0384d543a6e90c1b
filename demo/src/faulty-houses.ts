import { causes, type CauseId } from '@pasado/core/work/diagnose/causes'
import type { HouseAction, HouseDefinition } from '@pasado/core/house/definition'
import type { HouseComplaint } from '@pasado/core/house/scene'
import type { PlanFile } from '@pasado/core/work/plan/file'
import { seededRandom } from '@pasado/core/values/random'
import { demoModels } from './models/all'
import { houseUnit, newestVersion, type Unit } from './house-unit'

/** A house with one thing wrong, what was done in it, and what its people complain of. */
export interface FaultyHouse {
  cause: CauseId
  definition: HouseDefinition
  actions: HouseAction[]
  complaint: HouseComplaint
}

/** What is no fault of a house: its people's own devices, what the maker or the provider sold, and what is none of the list. */
const notOfAHouse = ['own-device', 'powerline-weak', 'repeater-half', 'line-slow', 'something-else'] as const
/** Every cause that can be planted. */
export const plantable = causes
  .map(({ id }) => id)
  .filter((id): id is Exclude<CauseId, (typeof notOfAHouse)[number]> => !notOfAHouse.some((not) => not === id))

const ROOMS = ['Hall', 'Kitchen', 'Net room', 'Store', 'Rope walk', 'Shed'] as const
const [WIDE, DEEP] = [4.5, 4]

/** A unit that runs, as its people know it: nobody has read its login. */
function unitOf(...[id, name, model, role, number, more]: Required<Parameters<typeof houseUnit>>): Unit {
  const newest = newestVersion(model)
  const { login: _, ...unit } = houseUnit(id, name, model, role, number, {
    running: true,
    ...(newest === undefined ? {} : { firmware: newest }),
    ...more
  })
  return unit
}

/** A row of rooms behind brick, one line in, a router behind it, nodes or an access point beyond; with one thing wrong. */
export function faultyHouse(cause: CauseId, seed: number): FaultyHouse {
  const random = seededRandom(seed * 7919 + plantable.indexOf(cause as never))
  const of = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const inner = of([
    { material: 'plasterboard', thicknessMm: 100 },
    { material: 'brick', thicknessMm: 115 }
  ] as const)
  const hard = cause === 'too-far' || cause === 'backhaul-weak'
  const plan: PlanFile = {
    format: 'pasado.plan/1',
    outer: { material: 'brick', thicknessMm: 240 },
    inner: hard ? { material: 'brick', thicknessMm: 240 } : inner,
    storeys: [
      {
        name: 'Ground floor',
        floorM: 0,
        heightM: 2.5,
        rooms: ROOMS.map((name, at) => ({ name, x: at * WIDE, y: 0, widthM: WIDE, depthM: DEEP }))
      }
    ]
  }
  const inRoom = (at: number, dx = 0) => ({
    storey: 'Ground floor',
    x: at * WIDE + 1 + dx + random() * 2,
    y: 1 + random() * 2,
    heightM: 1.2
  })
  const middle = (at: number) => ({ storey: 'Ground floor', x: (at + 0.5) * WIDE, y: DEEP / 2, heightM: 1 })
  const wantsLogin = cause === 'provider-settings'
  const byCable =
    cause === 'bad-unit-cable' ||
    cause === 'double-dhcp' ||
    cause === 'address-clash' ||
    (cause === 'radio-off' && random() < 0.5)
  const line: 'gateway' | 'modem' =
    wantsLogin || byCable || cause === 'nat-clash' || random() < 0.6 ? 'gateway' : 'modem'
  const head =
    line === 'gateway'
      ? unitOf('line-unit', 'Gateway', wantsLogin ? 'brackwater-l2' : 'brackwater-c3', 'gateway', 301 + seed, {
          at: inRoom(0)
        })
      : unitOf('line-unit', 'Modem', 'karstine-sill', 'modem', 301 + seed, { at: inRoom(0) })
  const lattice = random() < 0.4 && cause !== 'old-firmware' && cause !== 'nat-clash' && cause !== 'wrong-port'
  const [lead, follower] = lattice ? ['fenmarrow-lattice-3', 'fenmarrow-lattice-3'] : ['ostrel-heron', 'ostrel-tern']
  const units: Unit[] = [head]
  const cables: HouseDefinition['cables'] = [
    {
      id: 'line-cable',
      kind: wantsLogin ? 'telephone' : 'coax',
      lengthM: 1.5,
      a: { unit: 'line', port: 'wall' },
      b: {
        unit: 'line-unit',
        port: demoModels
          .find(({ id }) => id === head.model)!
          .ports.find(({ kind }) => kind === 'coax' || kind === 'telephone-line')!.id
      }
    }
  ]
  const lanOf = (model: string, nth = 0) =>
    demoModels.find(({ id }) => id === model)!.ports.filter(({ kind }) => kind === 'lan')[nth]!.id
  const internetOf = (model: string) =>
    demoModels.find(({ id }) => id === model)!.ports.find(({ kind }) => kind === 'internet' || kind === 'lan')!.id
  const faults: HouseDefinition['faults'] = []
  const actions: HouseAction[] = []
  let complaint: HouseComplaint
  if (byCable) {
    units.push(
      unitOf('point', 'Access point', 'oldmere-weir', 'access-point', 401 + seed, {
        at: inRoom(2),
        settings: {
          mode: 'access-point',
          'dhcp.server': cause === 'double-dhcp' ? 'on' : 'off',
          'lan.address': cause === 'address-clash' ? '192.168.20.1' : '192.168.20.250',
          'wifi.ssid': 'Turnstone'
        }
      })
    )
    cables.push({
      id: 'unit-cable',
      kind: 'network',
      category: 'cat5e',
      lengthM: 14,
      a: { unit: 'line-unit', port: lanOf(head.model) },
      b: { unit: 'point', port: lanOf('oldmere-weir') }
    })
    head.settings = { 'wifi.ssid': 'Turnstone' }
    complaint = { unit: 'point', where: middle(2) }
  } else {
    const router = unitOf('router', 'Router', lead, 'router', 501 + seed, {
      at: inRoom(0, 1),
      settings: { 'wifi.ssid': 'Turnstone', ...(cause === 'nat-clash' ? { 'lan.address': '192.168.20.1' } : {}) }
    })
    const firstRoom = cause === 'backhaul-weak' ? 3 : 1
    const nodeRoom = cause === 'too-far' ? firstRoom : firstRoom + Math.floor(random() * 2)
    const absent = ['wrong-passphrase', 'family-mismatch', 'pairing-missed', 'wrong-adapter', 'unit-broken'].includes(
      cause
    )
    const stranger = lattice ? 'ostrel-tern' : 'fenmarrow-lattice-3'
    const node = unitOf('node', 'Node', cause === 'family-mismatch' ? stranger : follower, 'node', 601 + seed, {
      at: inRoom(nodeRoom),
      running: !absent,
      settings: absent ? {} : { 'wifi.ssid': 'Turnstone' }
    })
    units.push(
      router,
      node,
      unitOf('node-2', 'Second node', follower, 'node', 701 + seed, {
        at: inRoom(1),
        settings: { 'wifi.ssid': 'Turnstone' }
      })
    )
    cables.push({
      id: 'wan-cable',
      kind: 'network',
      category: 'cat6',
      lengthM: 2,
      a: { unit: 'line-unit', port: lanOf(head.model) },
      b: { unit: 'router', port: cause === 'wrong-port' ? lanOf(lead) : internetOf(lead) }
    })
    if (absent)
      actions.push(
        { at: 0, do: 'plug', unit: 'node' },
        ...(cause === 'wrong-passphrase' ? [{ at: 300, do: 'app' as const, unit: 'node' }] : []),
        { at: 1200, do: 'wait' }
      )
    complaint = { unit: 'node', where: cause === 'too-far' ? middle(4 + Math.floor(random() * 2)) : middle(nodeRoom) }
  }
  const [target] = [complaint.unit]
  switch (cause) {
    case 'line-down':
      faults.push({ kind: 'dead-line' })
      break
    case 'provider-settings':
      faults.push({ kind: 'login-refused' })
      break
    case 'modem-stuck':
      faults.push({ kind: 'stuck-modem', unit: 'line-unit' })
      break
    case 'bad-wan-cable':
      faults.push({ kind: 'bad-cable', cable: 'wan-cable' })
      break
    case 'bad-unit-cable':
      faults.push({ kind: 'bad-cable', cable: 'unit-cable' })
      break
    case 'dns':
      faults.push({ kind: 'names-not-found' })
      break
    case 'radio-off':
      faults.push({ kind: 'radio-off', unit: target })
      break
    case 'wrong-passphrase':
      faults.push({ kind: 'wrong-key', unit: target })
      break
    case 'wrong-adapter':
      faults.push({ kind: 'wrong-adapter', unit: target })
      break
    case 'unit-broken':
      faults.push({ kind: 'broken-unit', unit: target })
      break
    case 'old-firmware':
      faults.push({
        kind: 'withdrawn-firmware',
        unit: target,
        version: demoModels
          .find(({ id }) => id === units.find((unit) => unit.id === target)!.model)!
          .firmware.releases.find(({ withdrawn }) => withdrawn)!.version
      })
      break
    case 'wrong-network':
      units.push(
        unitOf('old', 'Old router', 'oldmere-weir', 'router', 801 + seed, {
          at: inRoom(1),
          settings: { mode: 'router', 'wifi.ssid': 'WEIR0B0B' }
        })
      )
      actions.push({ at: 0, do: 'phone', unit: 'old' })
      break
    default:
  }
  const air: HouseDefinition['air'] =
    cause === 'channel-crowded'
      ? (['2.4', '5'] as const).flatMap((band) =>
          [0, 1, 2].map((at) => ({
            band,
            channel: band === '5' ? 36 : 6,
            widthMHz: band === '5' ? (80 as const) : (20 as const),
            dbm: -48 - at * 6,
            busy: 0.3 + random() * 0.15
          }))
        )
      : [
          { band: '2.4', channel: 1, widthMHz: 20, dbm: -70, busy: 0.2 },
          { band: '5', channel: 100, widthMHz: 80, dbm: -72, busy: 0.2 }
        ]
  return {
    cause,
    actions,
    complaint,
    definition: {
      format: 'pasado.house/1',
      name: 'A house with a fault',
      says: 'Something does not work. Find out what.',
      seed: 1000 + seed,
      line: { kind: wantsLogin ? 'telephone-line' : 'coax', speedDownMbps: of([100, 150, 300]) },
      plan,
      air,
      units,
      cables,
      faults
    }
  }
}
