import type { Model } from '@pasado/core/catalogue/model'
import { dark, movesOf, releasesOf, row, twoBands } from './parts'
import { weir } from './others'

/** Tolvane: a ceiling access point run by a controller. */
const spindle: Model = {
  ...weir,
  id: 'tolvane-spindle',
  maker: 'Tolvane',
  name: 'Spindle',
  roles: ['access-point'],
  mount: { on: 'ceiling' },
  box: [
    { item: 'Spindle access point', count: 1, unit: 'tolvane-spindle' },
    { item: 'mounting plate', count: 1 },
    { item: 'screws', count: 4 }
  ],
  power: null,
  ports: [{ id: 'lan', name: 'Network and power', colour: 'grey', kind: 'lan', mbps: 2500, powerInClass: 4 }],
  buttons: [
    {
      id: 'reset',
      name: 'Reset (pin)',
      presses: [{ leastS: 5, mostS: null, does: 'factory reset once the ring turns white', confirms: 'adoptable' }]
    }
  ],
  lamps: [{ id: 'ring', name: 'Ring' }],
  states: [
    row('unpowered', { ring: dark }, 'no power', 'Check the powered port and the switch’s budget'),
    row('starting', { ring: ['white', 'blink'] }, 'starting', 'Wait', { usualMin: 1, maxMin: 3 }),
    row('adoptable', { ring: ['white', 'solid'] }, 'powered, waiting to be adopted', 'Adopt it in the controller', {
      maxMin: 30
    }),
    row('adopting', { ring: ['white/blue', 'alternate'] }, 'being adopted or updated', 'Leave it alone', {
      usualMin: 4,
      maxMin: 12
    }),
    row('well', { ring: ['blue', 'solid'] }, 'adopted, all is well', 'Nothing to do', { good: true }),
    row('lost', { ring: ['blue', 'blink'] }, 'the controller is out of reach', 'Check the cable and the segment')
  ],
  moves: movesOf(`
    unpowered > starting
    starting > adoptable, well, lost, unpowered
    adoptable > adopting, unpowered
    adopting > well, adoptable, starting, unpowered
    well > lost, adopting, unpowered
    lost > well, unpowered`),
  methods: [
    {
      id: 'adoption',
      name: 'adoption by the controller',
      kind: 'adoption',
      needs: ['controller'],
      steps: [
        {
          do: 'Plug it into a powered port and adopt it in the controller',
          expect: 'well',
          wait: { leastMin: 2, usualMin: 5, mostMin: 12 },
          ifNot: 'Reset it by the pin until the ring turns white'
        }
      ]
    }
  ],
  label: ['model', 'serial', 'mac'],
  masks: { serial: 'TV9CCCC9999', mac: '00005EHHHHHH' },
  defaultSsidPrefix: null,
  radios: twoBands,
  updates: 'managed',
  firmware: {
    minimum: '6.5.28',
    installMin: { usual: 4, most: 12 },
    releases: releasesOf(`
    6.5.20 2025-04-01
    6.5.28 2025-12-09 hole`)
  }
}

const adoption = (expect: string): Model['methods'] => [
  {
    id: 'adoption',
    name: 'adoption by the controller',
    kind: 'adoption',
    needs: ['controller'],
    steps: [
      {
        do: 'Cable it to the main switch and adopt it in the controller',
        expect,
        wait: { leastMin: 2, usualMin: 5, mostMin: 12 },
        ifNot: 'Reset it by the pin until the lamp turns white'
      }
    ]
  }
]

const { mount: _ceiling, ...onAShelf } = spindle

/** Tolvane: a switch with eight ports that give power, 62 W together. */
const bobbin: Model = {
  ...onAShelf,
  id: 'tolvane-bobbin-8',
  name: 'Bobbin 8',
  roles: ['switch'],
  box: [
    { item: 'Bobbin 8 switch', count: 1, unit: 'tolvane-bobbin-8' },
    { item: 'mains cable', count: 1 },
    { item: 'mounting ears', count: 2 },
    { item: 'screws', count: 8 }
  ],
  ports: [
    ...Array.from({ length: 8 }, (_, at) => ({
      id: `lan-${at + 1}`,
      name: String(at + 1),
      colour: 'grey',
      kind: 'lan' as const,
      mbps: 1000,
      powerOutW: at < 6 ? 30 : 0
    })),
    { id: 'up', name: 'Up', colour: 'black', kind: 'lan', mbps: 2500 }
  ],
  powerBudgetW: 62,
  buttons: [
    {
      id: 'reset',
      name: 'Reset (pin)',
      presses: [
        { leastS: 1, mostS: 4, does: 'restart', confirms: 'starting' },
        { leastS: 8, mostS: null, does: 'factory reset once System turns white', confirms: 'adoptable' }
      ]
    }
  ],
  lamps: [
    { id: 'system', name: 'System' },
    { id: 'power', name: 'Port power' }
  ],
  states: [
    row('unpowered', { system: dark, power: dark }, 'no power', 'Check the mains cable'),
    row('starting', { system: ['white', 'blink'], power: dark }, 'starting', 'Wait', { usualMin: 1.5, maxMin: 4 }),
    row('adoptable', { system: ['white', 'solid'] }, 'powered, waiting to be adopted', 'Adopt it in the controller', {
      maxMin: 30
    }),
    row('adopting', { system: ['white/blue', 'alternate'] }, 'being adopted or updated', 'Leave it alone', {
      usualMin: 4,
      maxMin: 12
    }),
    row('well', { system: ['blue', 'solid'], power: ['green', 'solid'] }, 'adopted, all is well', 'Nothing to do', {
      good: true
    }),
    row(
      'over-budget',
      { system: ['blue', 'solid'], power: ['amber', 'blink'] },
      'its power is used up',
      'Take a powered unit off, or use an injector'
    ),
    row('lost', { system: ['blue', 'blink'] }, 'the controller is out of reach', 'Check the cable and the segment')
  ],
  moves: movesOf(`
    unpowered > starting
    starting > adoptable, well, lost, unpowered
    adoptable > adopting, starting, unpowered
    adopting > well, adoptable, starting, unpowered
    well > over-budget, lost, adopting, starting, unpowered
    over-budget > well, lost, unpowered
    lost > well, over-budget, unpowered`),
  methods: adoption('well'),
  radios: [],
  updates: 'managed',
  masks: { serial: 'TB9CCCC9999', mac: '00005EHHHHHH' }
}

/** Tolvane: the controller that the other Tolvanes are adopted by. */
const distaff: Model = {
  ...onAShelf,
  id: 'tolvane-distaff',
  name: 'Distaff',
  roles: ['controller'],
  box: [
    { item: 'Distaff controller', count: 1, unit: 'tolvane-distaff' },
    { item: 'network cable 1 m', count: 1 }
  ],
  ports: [{ id: 'lan', name: 'Network and power', colour: 'grey', kind: 'lan', mbps: 1000, powerInClass: 2 }],
  buttons: [
    {
      id: 'reset',
      name: 'Reset (pin)',
      presses: [{ leastS: 10, mostS: null, does: 'factory reset once the lamp turns white', confirms: 'empty' }]
    }
  ],
  lamps: [{ id: 'status', name: 'Status' }],
  states: [
    row('unpowered', { status: dark }, 'no power', 'Check the powered port'),
    row('starting', { status: ['white', 'pulse'] }, 'starting', 'Wait', { usualMin: 3, maxMin: 8 }),
    row('empty', { status: ['white', 'solid'] }, 'running, not set up yet', 'Open its page and set it up', {
      maxMin: 60
    }),
    row('updating', { status: ['white/blue', 'alternate'] }, 'updating', 'Leave it alone', { usualMin: 6, maxMin: 15 }),
    row('well', { status: ['blue', 'solid'] }, 'set up, all is well', 'Nothing to do', { good: true }),
    row('no-network', { status: ['red', 'solid'] }, 'no address', 'Check the cable and the DHCP server')
  ],
  moves: movesOf(`
    unpowered > starting
    starting > empty, well, no-network, unpowered
    empty > updating, well, unpowered
    updating > starting, empty, well, unpowered
    well > updating, no-network, starting, empty, unpowered
    no-network > well, empty, unpowered`),
  methods: [
    {
      id: 'own-page',
      name: 'its own page',
      kind: 'own-page',
      needs: ['laptop', 'customer-account'],
      steps: [
        {
          do: 'Cable it to a powered port and wait for white',
          expect: 'empty',
          wait: { leastMin: 2, usualMin: 3, mostMin: 8 },
          ifNot: 'Another powered port'
        },
        {
          do: 'Open its page, set the site up and let it update',
          expect: 'well',
          wait: { leastMin: 3, usualMin: 8, mostMin: 20 },
          ifNot: 'Restart it and open the page again'
        }
      ]
    }
  ],
  prompts: [
    { id: 'cloud', text: 'Manage the site from the cloud' },
    { id: 'usage', text: 'Share usage statistics with the maker' }
  ],
  label: ['model', 'serial', 'mac', 'address', 'login'],
  radios: [],
  masks: { serial: 'TD9CCCC9999', mac: '00005EHHHHHH', password: 'demo-aaa999' },
  firmware: {
    minimum: '4.0.2',
    installMin: { usual: 6, most: 15 },
    releases: releasesOf(`
    3.9.8 2025-02-11
    4.0.2 2025-11-20 needs:3.9.0 hole
    4.1.0 2026-08-03 needs:4.0.0`)
  }
}

export const tolvane: Model[] = [spindle, bobbin, distaff]
