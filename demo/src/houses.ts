import type { HouseDefinition } from '@pasado/core/house/definition'
import type { PlanFile } from '@pasado/core/work/plan/file'
import { houseUnit as unit, newestVersion } from './house-unit'

const on = (x: number, y: number, storey = 'Ground floor') => ({ storey, x, y, heightM: 1.2 })
const net = (id: string, category: 'cat5' | 'cat5e' | 'cat6' = 'cat6', lengthM = 2) => ({
  id,
  kind: 'network' as const,
  category,
  lengthM
})

/** A net-maker's practice house: brick outside, board inside. */
const plan: PlanFile = {
  format: 'pasado.plan/1',
  outer: { material: 'brick', thicknessMm: 240 },
  inner: { material: 'plasterboard', thicknessMm: 100 },
  storeys: [
    {
      name: 'Ground floor',
      floorM: 0,
      heightM: 2.5,
      ceilingMaterial: 'wood',
      ceilingMm: 180,
      rooms: [
        { name: 'Hall', x: 0, y: 0, widthM: 3, depthM: 4 },
        { name: 'Kitchen', x: 3, y: 0, widthM: 4, depthM: 4 },
        { name: 'Net room', x: 0, y: 4, widthM: 7, depthM: 4 }
      ]
    },
    { name: 'Loft', floorM: 2.7, heightM: 2.2, rooms: [{ name: 'Sail loft', x: 0, y: 0, widthM: 7, depthM: 8 }] }
  ]
}

/** What a row of net-makers' cottages sends: crowded below, two wide ones above. */
const air: HouseDefinition['air'] = [
  { ssid: 'Copperline', band: '2.4', channel: 1, widthMHz: 20, dbm: -52, busy: 0.35 },
  { ssid: 'saltpan-7', band: '2.4', channel: 6, widthMHz: 20, dbm: -58, busy: 0.6 },
  { ssid: 'Gannet', band: '2.4', channel: 6, widthMHz: 20, dbm: -64, busy: 0.3 },
  { ssid: 'tin-whistle', band: '2.4', channel: 11, widthMHz: 20, dbm: -71, busy: 0.15 },
  { ssid: 'Copperline', band: '5', channel: 36, widthMHz: 80, dbm: -66, busy: 0.5 },
  { ssid: 'Gannet', band: '5', channel: 100, widthMHz: 80, dbm: -74, busy: 0.2 }
]

/** A row of sheds under one roof: far from end to end. */
const row: PlanFile = {
  format: 'pasado.plan/1',
  outer: { material: 'brick', thicknessMm: 240 },
  inner: { material: 'brick', thicknessMm: 240 },
  storeys: [
    {
      name: 'Ground floor',
      floorM: 0,
      heightM: 2.5,
      rooms: ['Hall', 'Store', 'Rope walk', 'Shed'].map((name, at) => ({ name, x: at * 5, y: 0, widthM: 5, depthM: 4 }))
    }
  ]
}

/** Houses to practise on. */
export const demoHouses: HouseDefinition[] = [
  {
    format: 'pasado.house/1',
    name: 'Mesh on a coax gateway',
    says: 'A gateway, a router and two nodes, all in their boxes. One of the network cables has seen better days.',
    seed: 11,
    line: { kind: 'coax', speedDownMbps: 500 },
    plan,
    air,
    units: [
      unit('gateway', 'Gateway', 'brackwater-c3', 'gateway', 201, { at: on(0.5, 0.5) }),
      unit('router', 'Router', 'ostrel-heron', 'router', 202, { at: on(1, 1) }),
      unit('node-1', 'Kitchen node', 'ostrel-tern', 'node', 203, { at: on(1.4, 1.4) }),
      unit('node-2', 'Loft node', 'ostrel-tern', 'node', 204, { at: on(1.8, 1.4) })
    ],
    cables: [{ id: 'coax-1', kind: 'coax', lengthM: 1.5 }, net('net-1'), net('net-2'), net('net-3', 'cat5')],
    faults: [{ kind: 'bad-cable', cable: 'net-1' }]
  },
  {
    format: 'pasado.house/1',
    name: 'An old router made an access point',
    says: 'The gateway runs. The old router from the attic is to bring Wi-Fi to the net room: by cable, as an access point.',
    seed: 23,
    line: { kind: 'coax', speedDownMbps: 300 },
    plan,
    air,
    units: [
      unit('gateway', 'Gateway', 'brackwater-c3', 'gateway', 211, { at: on(0.5, 0.5), running: true }),
      unit('old', 'Old router', 'oldmere-weir', 'access-point', 212, { at: on(6, 7) })
    ],
    cables: [
      {
        id: 'coax-1',
        kind: 'coax',
        lengthM: 1.5,
        a: { unit: 'line', port: 'wall' },
        b: { unit: 'gateway', port: 'coax' }
      },
      net('net-1', 'cat5e', 12),
      net('net-2')
    ],
    faults: []
  },
  {
    format: 'pasado.house/1',
    name: 'A line that trains',
    says: 'A gateway on the telephone line, and an extender by its buttons. Patience is half of it.',
    seed: 37,
    line: { kind: 'telephone-line', speedDownMbps: 80 },
    plan,
    units: [
      unit('gateway', 'Gateway', 'brackwater-l2', 'gateway', 221, { at: on(0.5, 0.5) }),
      unit('extender', 'Landing extender', 'quillet-rush', 'extender', 222, { at: on(2, 2) })
    ],
    cables: [{ id: 'line-1', kind: 'telephone', lengthM: 2 }, net('net-1')],
    faults: []
  },
  {
    format: 'pasado.house/1',
    name: 'Identical points',
    says: 'A plain modem and three points that look alike. One of them does not join at the first try, one came with the wrong adapter.',
    seed: 41,
    line: { kind: 'coax', speedDownMbps: 300 },
    plan,
    units: [
      unit('modem', 'Modem', 'karstine-sill', 'modem', 231, { at: on(0.5, 0.5) }),
      unit('lead', 'Leading point', 'fenmarrow-lattice-3', 'router', 232, { at: on(1, 1) }),
      unit('point-b', 'Point B', 'fenmarrow-lattice-3', 'node', 233, { at: on(1.4, 1.4) }),
      unit('point-c', 'Point C', 'fenmarrow-lattice-3', 'node', 234, { at: on(1.8, 1.4) })
    ],
    cables: [{ id: 'coax-1', kind: 'coax', lengthM: 1.5 }, net('net-1'), net('net-2')],
    faults: [
      { kind: 'stuck-pairing', unit: 'point-b' },
      { kind: 'wrong-adapter', unit: 'point-c' }
    ]
  },
  {
    format: 'pasado.house/1',
    name: 'Powered ceiling',
    says: 'A controller, a powered switch and a ceiling access point behind a gateway that runs.',
    seed: 53,
    line: { kind: 'coax', speedDownMbps: 1000 },
    plan,
    units: [
      unit('gateway', 'Gateway', 'brackwater-c3', 'gateway', 241, { at: on(0.5, 0.5), running: true }),
      unit('switch', 'Switch', 'tolvane-bobbin-8', 'switch', 242, { at: on(1, 1) }),
      unit('controller', 'Controller', 'tolvane-distaff', 'controller', 243, { at: on(1.2, 1) }),
      unit('ceiling', 'Ceiling access point', 'tolvane-spindle', 'access-point', 244, {
        at: { storey: 'Ground floor', x: 3.5, y: 6, heightM: 2.4 }
      })
    ],
    cables: [
      {
        id: 'coax-1',
        kind: 'coax',
        lengthM: 1.5,
        a: { unit: 'line', port: 'wall' },
        b: { unit: 'gateway', port: 'coax' }
      },
      net('net-1'),
      net('net-2'),
      net('net-3', 'cat6', 18)
    ],
    faults: []
  },
  {
    format: 'pasado.house/1',
    name: 'Nothing in the shed',
    says: 'All of it runs, and ran well yesterday. In the shed nothing comes through any more. Find out why.',
    seed: 61,
    line: { kind: 'coax', speedDownMbps: 300 },
    plan: row,
    air,
    units: [
      unit('gateway', 'Gateway', 'brackwater-c3', 'gateway', 251, {
        at: on(0.6, 0.6),
        running: true,
        firmware: newestVersion('brackwater-c3')!
      }),
      unit('router', 'Router', 'ostrel-heron', 'router', 252, {
        at: on(4, 2),
        running: true,
        firmware: newestVersion('ostrel-heron')!,
        settings: { 'wifi.ssid': 'Turnstone', 'wifi.5.channel': '149' }
      }),
      unit('node', 'Shed node', 'ostrel-tern', 'node', 253, {
        at: on(14, 2),
        running: true,
        firmware: newestVersion('ostrel-tern')!,
        settings: { 'wifi.ssid': 'Turnstone', 'wifi.5.channel': '149' }
      })
    ],
    cables: [
      {
        id: 'coax-1',
        kind: 'coax',
        lengthM: 1.5,
        a: { unit: 'line', port: 'wall' },
        b: { unit: 'gateway', port: 'coax' }
      },
      { ...net('net-1'), a: { unit: 'gateway', port: 'lan-1' }, b: { unit: 'router', port: 'internet' } }
    ],
    faults: [{ kind: 'radio-off', unit: 'node' }]
  }
]
