import type { Model } from '@pasado/core/catalogue/model'
import { appPrompts, movesOf, releasesOf, row, dark, twoBands } from './parts'

/** Quillet extender: four lamps, the signal one in steps. Its blue means weak. */
const reed: Model = {
  format: 'pasado.model/1',
  id: 'quillet-reed',
  version: 1,
  maker: 'Quillet',
  name: 'Reed',
  family: null,
  roles: ['extender', 'access-point'],
  mount: { on: 'wall-socket', leastM: 0.6, mostM: 1.8 },
  box: [
    { item: 'Reed extender (wall plug)', count: 1, unit: 'quillet-reed' },
    { item: 'quick guide', count: 1 }
  ],
  power: null,
  ports: [{ id: 'lan', name: 'Network', colour: 'yellow', kind: 'lan', mbps: 1000 }],
  buttons: [
    {
      id: 'pair',
      name: 'Join',
      presses: [{ leastS: 0.5, mostS: 2, does: 'joins the router within two minutes', confirms: 'joining' }]
    },
    {
      id: 'reset',
      name: 'Reset (pin)',
      presses: [
        { leastS: 2, mostS: 9, does: 'restart' },
        { leastS: 10, mostS: null, does: 'factory reset once all four lamps light', confirms: 'resetting' }
      ]
    }
  ],
  lamps: [
    { id: 'power', name: 'Power' },
    { id: 'signal', name: 'Signal' },
    { id: 'air', name: '2.4 GHz' },
    { id: 'air5', name: '5 GHz' }
  ],
  states: [
    row('unpowered', { power: dark, signal: dark, air: dark, air5: dark }, 'no power', 'Check the socket'),
    row('starting', { power: ['green', 'blink'], signal: dark, air: dark, air5: dark }, 'starting', 'Wait a minute', {
      usualMin: 1,
      maxMin: 2
    }),
    row(
      'ready',
      { power: ['green', 'solid'], signal: dark, air: dark, air5: dark },
      'not joined yet',
      'Press Join on the router, then here',
      { maxMin: 30 }
    ),
    row('joining', { power: ['green', 'solid'], signal: ['green', 'blink'] }, 'joining', 'Wait up to two minutes', {
      usualMin: 1,
      maxMin: 2
    }),
    row(
      'well',
      { power: ['green', 'solid'], signal: ['green', 'solid'], air: ['green', 'solid'] },
      'joined, strong signal',
      'Nothing to do',
      { good: true }
    ),
    row(
      'weak',
      { power: ['green', 'solid'], signal: ['blue', 'solid'], air: ['green', 'solid'] },
      'joined, weak signal',
      'Move it halfway back to the router'
    ),
    row(
      'lost',
      { power: ['green', 'solid'], signal: ['red', 'solid'] },
      'the router is out of reach',
      'Move it closer, then join again'
    ),
    row(
      'resetting',
      { power: ['green', 'solid'], signal: ['red', 'blink'], air: ['red', 'blink'], air5: ['red', 'blink'] },
      'resetting',
      'Wait until only Power is lit',
      { maxMin: 2 }
    ),
    row('lamps-off', { power: dark, signal: dark, air: dark, air5: dark }, 'lamps switched off', 'Nothing to do', {
      good: true
    })
  ],
  moves: movesOf(`
    unpowered > starting
    starting > ready, well, weak, lost, unpowered
    ready > joining, resetting, unpowered
    joining > well, weak, ready, lost, unpowered
    well > weak, lost, lamps-off, resetting, unpowered
    weak > well, lost, unpowered
    lost > joining, well, weak, resetting, unpowered
    resetting > starting
    lamps-off > well, weak, lost`),
  start: 'unpowered',
  lampsCanBeOff: true,
  methods: [
    {
      id: 'push-button',
      name: 'the Join buttons',
      kind: 'push-button',
      needs: [],
      steps: [
        {
          do: 'Plug it in beside the router',
          expect: 'ready',
          wait: { leastMin: 0.5, usualMin: 1, mostMin: 2 },
          ifNot: 'Try another socket, not a strip'
        },
        {
          do: 'Press the router’s pairing button, then Join within two minutes',
          expect: 'well',
          wait: { leastMin: 0.5, usualMin: 1, mostMin: 2 },
          ifNot: 'Once more; then reset it by the pin for ten seconds'
        }
      ]
    },
    {
      id: 'own-page',
      name: 'its own page',
      kind: 'own-page',
      needs: ['mobile-data-off'],
      steps: [
        {
          do: 'Join its own network and open the address on its label',
          expect: 'well',
          wait: { leastMin: 1, usualMin: 3, mostMin: 6 },
          ifNot: 'Check that the phone stayed on its network'
        }
      ]
    }
  ],
  prompts: [],
  label: ['model', 'serial', 'mac', 'ssid', 'key', 'address', 'login'],
  masks: { serial: 'QR99A9999', mac: '00005EHHHHHH', key: 'democccc9999', password: 'demo-aaa999' },
  defaultSsidPrefix: 'Reed_EXT',
  radios: twoBands,
  mesh: null,
  updates: 'managed',
  firmware: {
    minimum: '1.14',
    installMin: { usual: 4, most: 10 },
    releases: releasesOf(`
    1.12 2024-02-01
    1.14 2025-02-18 hole
    1.15b3 2026-01-30`)
  }
}

/** Quillet powerline adapter: three lamps, the line's in steps. */
const eel: Model = {
  ...reed,
  id: 'quillet-eel',
  name: 'Eel',
  roles: ['powerline-adapter'],
  box: [
    { item: 'Eel adapter (wall plug)', count: 2, unit: 'quillet-eel' },
    { item: 'network cable 2 m', count: 2 }
  ],
  twin: 'The two of a pair are alike; the serial ends in A and B.',
  ports: [
    { id: 'lan', name: 'Network', colour: 'yellow', kind: 'lan', mbps: 1000 },
    { id: 'mains', name: 'Mains', colour: 'white', kind: 'mains' }
  ],
  buttons: [
    {
      id: 'pair',
      name: 'Pair',
      presses: [
        { leastS: 0.5, mostS: 3, does: 'pairs with its partner within two minutes', confirms: 'pairing' },
        { leastS: 10, mostS: null, does: 'forgets its partner', confirms: 'alone' }
      ]
    }
  ],
  lamps: [
    { id: 'power', name: 'Power' },
    { id: 'line', name: 'Powerline' },
    { id: 'net', name: 'Network' }
  ],
  states: [
    row('unpowered', { power: dark, line: dark, net: dark }, 'no power', 'Check the wall socket'),
    row(
      'alone',
      { power: ['green', 'solid'], line: dark },
      'its partner is not found',
      'Put both on one circuit, straight into the wall',
      { maxMin: 15 }
    ),
    row(
      'pairing',
      { power: ['green', 'blink'], line: dark },
      'pairing',
      'Press Pair on the partner within two minutes',
      { maxMin: 2 }
    ),
    row('well', { power: ['green', 'solid'], line: ['green', 'solid'] }, 'paired, fast', 'Nothing to do', {
      good: true
    }),
    row(
      'slow',
      { power: ['green', 'solid'], line: ['red', 'solid'] },
      'paired, slow',
      'Another socket, away from chargers'
    )
  ],
  moves: movesOf(`
    unpowered > alone
    alone > pairing, well, slow, unpowered
    pairing > alone, well, slow
    well > slow, alone, unpowered
    slow > well, alone, unpowered`),
  lampsCanBeOff: false,
  methods: [
    {
      id: 'push-button',
      name: 'the Pair buttons',
      kind: 'push-button',
      needs: [],
      steps: [
        {
          do: 'Press Pair on one, then on the other within two minutes',
          expect: 'well',
          wait: { leastMin: 0.5, usualMin: 1, mostMin: 2 },
          ifNot: 'Plug both side by side, pair, then move'
        }
      ]
    }
  ],
  label: ['model', 'serial', 'mac', 'setup-code'],
  masks: { serial: 'QE9999-99A', mac: '00005EHHHHHH', setupCode: 'DEMO-XXXX-XXXX' },
  defaultSsidPrefix: null,
  radios: [],
  updates: 'none',
  firmware: { minimum: '0.9', releases: [] }
}

/** Quillet: an extender set up by its app; one lamp, whose steady white is well. */
const rush: Model = {
  ...reed,
  id: 'quillet-rush',
  name: 'Rush',
  box: [
    { item: 'Rush extender (wall plug)', count: 1, unit: 'quillet-rush' },
    { item: 'quick guide', count: 1 }
  ],
  buttons: [
    {
      id: 'reset',
      name: 'Reset (pin)',
      presses: [
        { leastS: 1, mostS: 4, does: 'restart', confirms: 'starting' },
        { leastS: 10, mostS: null, does: 'factory reset once the lamp turns red', confirms: 'resetting' }
      ]
    }
  ],
  lamps: [{ id: 'status', name: 'Status' }],
  states: [
    row('unpowered', { status: dark }, 'no power', 'Check the socket'),
    row('starting', { status: ['white', 'blink'] }, 'starting', 'Wait a minute', { usualMin: 1, maxMin: 3 }),
    row('ready', { status: ['blue', 'blink'] }, 'ready for the app', 'Open the app', { maxMin: 30 }),
    row('joining', { status: ['blue/white', 'alternate'] }, 'joining and updating', 'Leave it plugged in', {
      usualMin: 4,
      maxMin: 12
    }),
    row('well', { status: ['white', 'solid'] }, 'joined, good signal', 'Nothing to do', { good: true }),
    row('weak', { status: ['blue', 'solid'] }, 'joined, weak signal', 'Move it halfway back to the router'),
    row('lost', { status: ['red', 'solid'] }, 'the router is out of reach', 'Move it closer, then open the app'),
    row('resetting', { status: ['red', 'blink'] }, 'resetting', 'Wait until it starts anew', { maxMin: 2 })
  ],
  moves: movesOf(`
    unpowered > starting
    starting > ready, well, weak, lost, unpowered
    ready > joining, resetting, unpowered
    joining > well, weak, ready, lost, unpowered
    well > weak, lost, resetting, starting, unpowered
    weak > well, lost, resetting, unpowered
    lost > well, weak, resetting, unpowered
    resetting > starting`),
  lampsCanBeOff: false,
  methods: [
    {
      id: 'app',
      name: 'the Quillet app',
      kind: 'app',
      needs: ['app-latest', 'customer-account', 'bluetooth', 'location'],
      steps: [
        {
          do: 'Plug it in beside the router',
          expect: 'ready',
          wait: { leastMin: 0.5, usualMin: 1, mostMin: 3 },
          ifNot: 'Reset it by the pin for ten seconds'
        },
        {
          do: 'Scan the device code in the app and follow it',
          expect: 'well',
          wait: { leastMin: 2, usualMin: 5, mostMin: 12 },
          ifNot: 'Closer to the router, then once more'
        },
        {
          do: 'Unplug it and plug it in where it stays',
          expect: 'well',
          wait: { leastMin: 1, usualMin: 1.5, mostMin: 3 },
          ifNot: 'Halfway back to the router'
        }
      ]
    }
  ],
  prompts: appPrompts.slice(0, 4),
  label: ['model', 'serial', 'mac', 'setup-code'],
  masks: { serial: 'QS99A9999', mac: '00005EHHHHHH', setupCode: 'DEMO-CCCC-CCCC' },
  defaultSsidPrefix: null,
  updates: 'either',
  firmware: {
    minimum: '2.3',
    installMin: { usual: 4, most: 12 },
    releases: releasesOf(`
    2.1 2025-03-15
    2.3 2026-02-20 hole`)
  }
}

export const quillet: Model[] = [reed, rush, eel]
