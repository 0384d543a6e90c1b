import type { Model } from '@pasado/core/catalogue/model'
import { adapter, appPrompts, movesOf, releasesOf, status, twoBands } from './parts'

/** Fenmarrow mesh: identical points, any may lead. Green steady is well; its blue pulse is ready, its white is only powered. */
export const fenmarrow: Model[] = [
  {
    format: 'pasado.model/1',
    id: 'fenmarrow-lattice-3',
    version: 1,
    maker: 'Fenmarrow',
    name: 'Lattice 3',
    family: 'fenmarrow-lattice',
    roles: ['router', 'node', 'access-point'],
    box: [
      { item: 'Lattice 3 point', count: 1, unit: 'fenmarrow-lattice-3' },
      { item: 'power adapter 15 V 1.4 A', count: 1, adapter: true }
    ],
    kits: [2, 3].map((count) => ({
      id: `pack-of-${count}`,
      name: `pack of ${count}`,
      items: [
        { item: 'Lattice 3 point', count, unit: 'fenmarrow-lattice-3' },
        { item: 'power adapter 15 V 1.4 A', count, adapter: true },
        { item: 'network cable 2 m', count: 1 }
      ]
    })),
    twin: 'All points are alike: only serial and MAC address differ. The letter under the base (A, B, C) is the order in the box.',
    power: adapter(15, 1.4),
    ports: [
      { id: 'one', name: '1', colour: 'grey', kind: 'lan', mbps: 1000 },
      { id: 'two', name: '2', colour: 'grey', kind: 'lan', mbps: 1000 }
    ],
    buttons: [
      {
        id: 'pair',
        name: 'Pair',
        presses: [
          { leastS: 0.5, mostS: 3, does: 'opens the pairing window for two minutes', confirms: 'pairing' },
          { leastS: 5, mostS: null, does: 'factory reset once the lamp turns red', confirms: 'resetting' }
        ]
      }
    ],
    lamps: [{ id: 'status', name: 'Status' }],
    states: [
      status('unpowered', 'off', 'off', 'no power', 'Check its adapter and socket'),
      status('powered', 'white', 'solid', 'powered, not yet connected', 'Wait for the blue pulse', {
        usualMin: 1,
        maxMin: 3
      }),
      status('ready', 'blue', 'pulse', 'ready to pair', 'Press Pair on the leading point, then here', { maxMin: 10 }),
      status('pairing', 'cyan', 'blink', 'pairing', 'Wait up to two minutes', { usualMin: 1, maxMin: 2 }),
      status('updating', 'blue/white', 'alternate', 'updating', 'Leave it switched on; it goes back and forth', {
        usualMin: 8,
        maxMin: 30
      }),
      status('well', 'green', 'solid', 'connected, all is well', 'Nothing to do', { good: true }),
      status('weak', 'amber', 'solid', 'connected, weak signal', 'Move it closer to the next point'),
      status('failed', 'red', 'blink', 'pairing failed', 'Closer, and press both again'),
      status('offline', 'red', 'solid', 'no internet', 'Look at the leading point, then at the modem'),
      status('resetting', 'red', 'fast-blink', 'resetting', 'Wait until it turns white', { maxMin: 2 })
    ],
    moves: movesOf(`
    unpowered > powered
    powered > ready, well, weak, offline, unpowered
    ready > pairing, updating, well, resetting, unpowered
    pairing > well, weak, failed, updating, unpowered
    updating > powered, well, unpowered
    failed > ready, pairing, resetting, unpowered
    well > weak, offline, updating, resetting, unpowered
    weak > well, offline, unpowered
    offline > well, weak, resetting, unpowered
    resetting > powered`),
    start: 'unpowered',
    lampsCanBeOff: false,
    methods: [
      {
        id: 'push-button',
        name: 'the Pair buttons',
        kind: 'push-button',
        // It joins one that leads already.
        as: ['node', 'access-point'],
        needs: [],
        steps: [
          {
            do: 'Stand it within a room of the leading point and plug it in',
            expect: 'powered',
            wait: { leastMin: 0.5, usualMin: 1, mostMin: 3 },
            ifNot: 'Try another socket'
          },
          {
            do: 'Wait for its lamp: blue, slow pulse',
            expect: 'ready',
            wait: { leastMin: 0.5, usualMin: 1.5, mostMin: 3 },
            ifNot: 'Hold Pair for five seconds until it turns red: that resets it'
          },
          {
            do: 'Press Pair on the leading point for one second, then here',
            expect: 'well',
            wait: { leastMin: 0.5, usualMin: 1, mostMin: 2 },
            ifNot: 'Closer, and both again'
          }
        ]
      },
      {
        id: 'app',
        name: 'the Fenmarrow app',
        kind: 'app',
        needs: ['app-latest', 'customer-account', 'location', 'local-network'],
        steps: [
          {
            do: 'Scan the code on the base and follow the app',
            expect: 'well',
            wait: { leastMin: 2, usualMin: 4, mostMin: 10 },
            ifNot: 'Restart it, then the modem'
          }
        ]
      }
    ],
    prompts: appPrompts.slice(0, 4),
    label: ['model', 'serial', 'mac', 'ssid', 'key', 'setup-code'],
    masks: { serial: 'L39A99999A', mac: '00005EHHHHHH', key: 'democccccccc', setupCode: 'DEMO-9999-9999' },
    defaultSsidPrefix: 'Lattice_',
    radios: twoBands,
    mesh: { members: null, hops: 2 },
    updates: 'automatic',
    firmware: {
      minimum: '2.9.0',
      installMin: { usual: 8, most: 30 },
      releases: releasesOf(`
    2.8.1 2025-01-20
    2.9.0 2025-08-14 hole
    3.0.4 2026-04-02 needs:2.8.1`)
    }
  }
]
