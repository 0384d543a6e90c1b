import type { Model } from '@pasado/core/catalogue/model'
import { adapter, appPrompts, countries, movesOf, releasesOf, status, twoBands } from './parts'

const adapterItem = { item: 'power adapter 12 V 2 A', count: 1, adapter: true }
const box = (id: string, unit: string) => [
  { item: unit, count: 1, unit: id },
  adapterItem,
  { item: 'network cable 1 m', count: 1 },
  { item: 'start card', count: 1 }
]

const firmware = {
  minimum: '3.0.2',
  installMin: { usual: 5, most: 15 },
  releases: releasesOf(`
    2.8.1 2024-11-04
    3.0.0 2025-05-19 needs:2.8.0 withdrawn
    3.0.2 2025-06-02 needs:2.8.0 hole
    3.1.0 2026-03-11 needs:3.0.2`)
}

/** Ostrel mesh: a router and two unlike nodes. White steady is well; blue blinking is ready to set up. */
const heron: Model = {
  format: 'pasado.model/1',
  id: 'ostrel-heron',
  version: 1,
  maker: 'Ostrel',
  name: 'Heron',
  family: 'ostrel-mesh',
  roles: ['router'],
  box: box('ostrel-heron', 'Heron router'),
  kits: [
    {
      id: 'trio',
      name: 'set of router and two Terns',
      items: [
        { item: 'Heron router', count: 1, unit: 'ostrel-heron' },
        { item: 'Tern node', count: 2, unit: 'ostrel-tern' },
        { ...adapterItem, count: 3 },
        { item: 'network cable 1 m', count: 1 },
        { item: 'start card', count: 1 }
      ]
    },
    {
      id: 'mixed',
      name: 'set of router, Tern and Dunlin',
      items: [
        { item: 'Heron router', count: 1, unit: 'ostrel-heron' },
        { item: 'Tern node', count: 1, unit: 'ostrel-tern' },
        { item: 'Dunlin wall node', count: 1, unit: 'ostrel-dunlin' },
        { ...adapterItem, count: 2 },
        { item: 'network cable 1 m', count: 1 },
        { item: 'start card', count: 1 }
      ]
    }
  ],
  twin: 'The router has a blue internet port; the nodes have none.',
  power: adapter(12, 2),
  ports: [
    { id: 'internet', name: 'Internet', colour: 'blue', kind: 'internet', mbps: 2500 },
    { id: 'lan-1', name: '1', colour: 'grey', kind: 'lan', mbps: 1000 },
    { id: 'lan-2', name: '2', colour: 'grey', kind: 'lan', mbps: 1000 }
  ],
  buttons: [
    {
      id: 'sync',
      name: 'Sync',
      presses: [{ leastS: 0.5, mostS: 2, does: 'opens the pairing window for two minutes', confirms: 'pairing' }]
    },
    {
      id: 'reset',
      name: 'Reset (pin)',
      presses: [{ leastS: 7, mostS: 15, does: 'factory reset once the lamp blinks amber', confirms: 'resetting' }]
    }
  ],
  lamps: [{ id: 'status', name: 'Status' }],
  states: [
    status('unpowered', 'off', 'off', 'no power', 'Check its adapter and socket'),
    status('starting', 'amber', 'solid', 'starting', 'Wait, it takes a minute or two', { usualMin: 1.5, maxMin: 4 }),
    status('ready', 'blue', 'blink', 'ready to set up', 'Start the setup in the app', { maxMin: 30 }),
    status('pairing', 'white', 'blink', 'pairing window open', 'Press Sync on the node now', { maxMin: 2 }),
    status('updating', 'white', 'pulse', 'updating', 'Leave it switched on', { usualMin: 5, maxMin: 15 }),
    status('well', 'white', 'solid', 'online, all is well', 'Nothing to do', { good: true }),
    status('no-internet', 'amber', 'blink', 'no internet', 'Check the cable to the modem, then the modem'),
    status('resetting', 'amber', 'fast-blink', 'resetting', 'Wait until it starts anew', { maxMin: 2 }),
    status('lamp-off', 'off', 'off', 'lamp switched off', 'Nothing to do', { good: true })
  ],
  moves: movesOf(`
    unpowered > starting
    starting > ready, well, no-internet, unpowered
    ready > pairing, updating, well, no-internet, unpowered, resetting
    pairing > well, no-internet, unpowered
    updating > starting, unpowered
    well > no-internet, pairing, updating, lamp-off, resetting, unpowered
    no-internet > well, resetting, unpowered
    resetting > starting
    lamp-off > well, no-internet`),
  start: 'unpowered',
  lampsCanBeOff: true,
  methods: [
    {
      id: 'app',
      name: 'the Ostrel app',
      kind: 'app',
      needs: ['app-latest', 'customer-account', 'bluetooth', 'location'],
      steps: [
        {
          do: 'Connect the blue port to the modem and plug the router in',
          expect: 'starting',
          wait: { leastMin: 1, usualMin: 1.5, mostMin: 4 },
          ifNot: 'Try another socket, then its own adapter'
        },
        { do: 'Wait for its lamp', expect: 'ready', ifNot: 'Reset it by the pin until it blinks amber fast' },
        {
          do: 'Scan the code on the base in the app and follow it',
          expect: 'well',
          wait: { leastMin: 2, usualMin: 4, mostMin: 10 },
          ifNot: 'Restart the modem, then the router'
        }
      ]
    }
  ],
  prompts: appPrompts,
  label: ['model', 'serial', 'mac', 'ssid', 'key', 'setup-code'],
  masks: { serial: 'AA9-9999-CCCC', mac: '00005EHHHHHH', key: 'demo-xxxx-xxxx', setupCode: 'DEMO-9999-CCCC' },
  defaultSsidPrefix: 'Ostrel-',
  radios: twoBands,
  mesh: { members: 4, hops: 2 },
  updates: 'either',
  firmware
}

/** An Ostrel node: its blue blinking is ready as well, its amber steady is too far. */
function node(id: string, name: string, lan: number): Model {
  return {
    ...heron,
    id,
    name,
    roles: ['node'],
    kits: [],
    box:
      id === 'ostrel-dunlin'
        ? [
            { item: 'Dunlin wall node', count: 1, unit: id },
            { item: 'start card', count: 1 }
          ]
        : box(id, `${name} node`),
    twin:
      name === 'Tern'
        ? 'The Tern has one port on its back; the Dunlin plugs into the wall.'
        : 'The Dunlin is a wall plug; it has no cable.',
    ports: Array.from({ length: lan }, (_, index) => ({
      id: `lan-${index + 1}`,
      name: String(index + 1),
      colour: 'grey',
      kind: 'lan' as const,
      mbps: 1000
    })),
    states: [
      ...heron.states.filter(({ state }) => !['no-internet', 'pairing'].includes(state)),
      status('pairing', 'white', 'blink', 'joining the mesh', 'Wait up to two minutes', { usualMin: 1, maxMin: 2 }),
      status('too-far', 'amber', 'solid', 'joined, but too far', 'Move it one room closer to the router'),
      status('no-mesh', 'amber', 'blink', 'the router is out of reach', 'Move it closer, then press Sync on both')
    ].map((item) =>
      item.state === 'starting'
        ? { ...item, lamps: [{ lamp: 'status', colour: 'amber', pattern: 'pulse' as const }] }
        : item
    ),
    moves: movesOf(`
      unpowered > starting
      starting > ready, well, too-far, no-mesh, unpowered
      ready > pairing, resetting, unpowered
      pairing > well, too-far, no-mesh, unpowered
      updating > starting, unpowered
      well > too-far, no-mesh, updating, lamp-off, resetting, unpowered
      too-far > well, no-mesh, unpowered
      no-mesh > well, too-far, resetting, unpowered
      resetting > starting
      lamp-off > well, no-mesh`),
    methods: [
      {
        id: 'push-button',
        name: 'the Sync buttons',
        kind: 'push-button',
        needs: [],
        steps: [
          {
            do: 'Plug the node in next to the router',
            expect: 'ready',
            wait: { leastMin: 1, usualMin: 1.5, mostMin: 4 },
            ifNot: 'Reset it by the pin'
          },
          {
            do: 'Press Sync on the router for a second, then on the node within two minutes',
            expect: 'well',
            wait: { leastMin: 0.5, usualMin: 1, mostMin: 2 },
            ifNot: 'Closer, and both buttons again'
          }
        ]
      },
      {
        id: 'app',
        name: 'the Ostrel app',
        kind: 'app',
        needs: ['app-latest', 'customer-account', 'bluetooth'],
        steps: [
          {
            do: 'Add a node in the app and scan its code',
            expect: 'well',
            wait: { leastMin: 1, usualMin: 3, mostMin: 8 },
            ifNot: 'Use the Sync buttons'
          }
        ]
      }
    ],
    prompts: [],
    label: ['model', 'serial', 'mac', 'setup-code'],
    defaultSsidPrefix: null,
    radios: [...twoBands, { band: '5', widthsMHz: [80], streams: 2, powerDbm: 23, countries }]
  }
}

export const ostrel: Model[] = [
  heron,
  node('ostrel-tern', 'Tern', 1),
  { ...node('ostrel-dunlin', 'Dunlin', 0), power: null }
]
