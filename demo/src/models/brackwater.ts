import type { Model } from '@pasado/core/catalogue/model'
import { adapter, dark, movesOf, releasesOf, row, status, twoBands } from './parts'

const lan = [1, 2, 3, 4].map((number) => ({
  id: `lan-${number}`,
  name: String(number),
  colour: 'yellow',
  kind: 'lan' as const,
  mbps: 1000
}))

/** Brackwater C3: coax gateway of the provider. White steady is well. */
const c3: Model = {
  format: 'pasado.model/1',
  id: 'brackwater-c3',
  version: 1,
  maker: 'Brackwater',
  name: 'C3',
  family: null,
  roles: ['gateway', 'modem'],
  box: [
    { item: 'C3 gateway', count: 1, unit: 'brackwater-c3' },
    { item: 'power adapter 12 V 3 A', count: 1, adapter: true },
    { item: 'coax cable 1.5 m', count: 1 },
    { item: 'network cable 1 m', count: 1 }
  ],
  power: adapter(12, 3),
  ports: [
    { id: 'coax', name: 'Cable', colour: 'metal', kind: 'coax' },
    ...lan,
    { id: 'phone', name: 'Phone', colour: 'grey', kind: 'telephone' }
  ],
  buttons: [
    {
      id: 'pair',
      name: 'Pair',
      presses: [{ leastS: 0.5, mostS: 3, does: 'opens the pairing window for two minutes', pairs: true }]
    },
    { id: 'reset', name: 'Reset (pin)', presses: [{ leastS: 10, mostS: null, does: 'factory reset' }] }
  ],
  lamps: [{ id: 'status', name: 'Status' }],
  states: [
    status('unpowered', 'off', 'off', 'no power', 'Check its adapter and socket'),
    status('starting', 'red', 'pulse', 'starting', 'Wait', { usualMin: 1, maxMin: 3 }),
    status('seeking', 'orange', 'blink', 'looking for the line', 'Check that the coax is screwed on by hand', {
      usualMin: 3,
      maxMin: 15
    }),
    status('activating', 'orange/green', 'alternate', 'activating; it goes back and forth', 'Leave it alone', {
      usualMin: 12,
      maxMin: 30
    }),
    status('well', 'white', 'solid', 'online, all is well', 'Nothing to do', { good: true }),
    status('no-line', 'red', 'solid', 'no line', 'Call the provider with what you tried')
  ],
  moves: movesOf(`
    unpowered > starting
    starting > seeking, unpowered
    seeking > activating, well, no-line, unpowered
    activating > seeking, well, starting, no-line, unpowered
    well > seeking, no-line, unpowered
    no-line > seeking, unpowered`),
  start: 'unpowered',
  lampsCanBeOff: false,
  methods: [
    {
      id: 'activation',
      name: 'activation by the provider',
      kind: 'activation',
      needs: ['mobile-data-on', 'customer-account'],
      steps: [
        {
          do: 'Screw the coax on by hand and switch it on',
          expect: 'seeking',
          wait: { leastMin: 1, usualMin: 3, mostMin: 15 },
          ifNot: 'Another outlet; never open the wall plate'
        },
        {
          do: 'Start the activation at the provider',
          expect: 'well',
          wait: { leastMin: 8, usualMin: 15, mostMin: 30 },
          ifNot: 'Call the provider'
        }
      ]
    }
  ],
  prompts: [
    { id: 'usage', text: 'Share line statistics with the provider' },
    { id: 'mail', text: 'Receive offers by mail' }
  ],
  label: ['model', 'serial', 'mac', 'ssid', 'key', 'address', 'login'],
  masks: { serial: 'BW9999999999', mac: '00005EHHHHHH', key: 'DEMOXXXXXXXX', password: 'demo-aaa999' },
  defaultSsidPrefix: 'BRACK-',
  radios: twoBands,
  mesh: null,
  updates: 'automatic',
  firmware: {
    minimum: '5.2',
    installMin: { usual: 6, most: 20 },
    releases: releasesOf(`
    5.1 2025-03-03
    5.2 2025-09-22 hole
    5.3 2026-05-06`)
  }
}

/** Brackwater L2: gateway on the telephone line, four lamps; training alternates for up to half an hour. */
const l2: Model = {
  ...c3,
  id: 'brackwater-l2',
  name: 'L2',
  box: [
    { item: 'L2 gateway', count: 1, unit: 'brackwater-l2' },
    { item: 'power adapter 12 V 2.5 A', count: 1, adapter: true },
    { item: 'line cable 2 m', count: 1 },
    { item: 'splitter', count: 1 }
  ],
  power: adapter(12, 2.5),
  ports: [
    { id: 'line', name: 'Line', colour: 'grey', kind: 'telephone-line' },
    ...lan,
    { id: 'phone', name: 'Phone', colour: 'green', kind: 'telephone' }
  ],
  lamps: [
    { id: 'power', name: 'Power' },
    { id: 'line', name: 'Line' },
    { id: 'net', name: 'Internet' },
    { id: 'phone', name: 'Phone' }
  ],
  states: [
    row('unpowered', { power: dark, line: dark, net: dark }, 'no power', 'Check its adapter and socket'),
    row('self-test', { power: ['orange', 'solid'], line: dark, net: dark }, 'self-test', 'Wait', {
      usualMin: 1,
      maxMin: 2
    }),
    row(
      'seeking',
      { power: ['green', 'solid'], line: ['orange', 'blink'], net: dark },
      'looking for the line',
      'Check the splitter: line to the wall, modem to the gateway',
      { usualMin: 2, maxMin: 10 }
    ),
    row(
      'training',
      { power: ['green', 'solid'], line: ['green/orange', 'alternate'], net: dark },
      'the line is training',
      'Leave it alone; up to half an hour is fine',
      { usualMin: 12, maxMin: 30 }
    ),
    row(
      'trained',
      { power: ['green', 'solid'], line: ['green', 'solid'], net: ['orange', 'blink'] },
      'line up, logging in',
      'Wait; check the provider’s login',
      { usualMin: 1, maxMin: 3 }
    ),
    row(
      'well',
      { power: ['green', 'solid'], line: ['green', 'solid'], net: ['green', 'solid'] },
      'online, all is well',
      'Nothing to do',
      { good: true }
    ),
    row(
      'refused',
      { power: ['green', 'solid'], line: ['green', 'solid'], net: ['red', 'solid'] },
      'the provider refuses the login',
      'Type the provider’s login again'
    )
  ],
  moves: movesOf(`
    unpowered > self-test
    self-test > seeking
    seeking > training, unpowered
    training > seeking, trained, unpowered
    trained > well, refused, seeking, unpowered
    refused > trained, unpowered
    well > seeking, unpowered`),
  methods: [
    {
      id: 'activation',
      name: 'activation by the provider',
      kind: 'activation',
      needs: ['mobile-data-on', 'line-credentials'],
      steps: [
        {
          do: 'Splitter: line to the wall, modem to the gateway, phone to the telephone',
          expect: 'seeking',
          wait: { leastMin: 1, usualMin: 2, mostMin: 10 },
          ifNot: 'Swap the line cable'
        },
        {
          do: 'Let the line train',
          expect: 'trained',
          wait: { leastMin: 5, usualMin: 15, mostMin: 30 },
          ifNot: 'Try the first socket of the home'
        },
        {
          do: 'Enter the provider’s login',
          expect: 'well',
          wait: { leastMin: 0.5, usualMin: 1, mostMin: 3 },
          ifNot: 'Type it again, letter by letter'
        }
      ]
    }
  ]
}

export const brackwater: Model[] = [c3, l2]
