import type { Model } from '@pasado/core/catalogue/model'
import { adapter, countries, dark, movesOf, releasesOf, row, twoBands } from './parts'

const lan = [1, 2, 3, 4].map((number) => ({
  id: `lan-${number}`,
  name: String(number),
  colour: 'black',
  kind: 'lan' as const,
  mbps: 1000
}))

/** Oldmere: an old router, often made an access point. Its blue steady is well. */
export const weir: Model = {
  format: 'pasado.model/1',
  id: 'oldmere-weir',
  version: 1,
  maker: 'Oldmere',
  name: 'Weir 300',
  family: null,
  roles: ['router', 'access-point'],
  box: [
    { item: 'Weir 300 router', count: 1, unit: 'oldmere-weir' },
    { item: 'power adapter 9 V 1 A', count: 1, adapter: true }
  ],
  power: adapter(9, 1),
  ports: [{ id: 'internet', name: 'WAN', colour: 'blue', kind: 'internet', mbps: 100 }, ...lan],
  buttons: [
    {
      id: 'reset',
      name: 'Reset (pin)',
      presses: [
        { leastS: 1, mostS: 5, does: 'restart' },
        { leastS: 10, mostS: null, does: 'factory reset once Power blinks', confirms: 'starting' }
      ]
    }
  ],
  lamps: [
    { id: 'power', name: 'Power' },
    { id: 'wan', name: 'WAN' },
    { id: 'air', name: 'Wi-Fi' }
  ],
  states: [
    row('unpowered', { power: dark, wan: dark, air: dark }, 'no power', 'Check its adapter and socket'),
    row('starting', { power: ['blue', 'blink'], wan: dark, air: dark }, 'starting', 'Wait a minute', {
      usualMin: 1,
      maxMin: 2
    }),
    row(
      'access-point',
      { power: ['blue', 'solid'], wan: dark, air: ['blue', 'solid'] },
      'running, nothing in the WAN port',
      'Nothing to do as an access point',
      { good: true }
    ),
    row(
      'router',
      { power: ['blue', 'solid'], wan: ['blue', 'solid'], air: ['blue', 'solid'] },
      'running as a router',
      'Nothing to do as a router',
      { good: true }
    ),
    row(
      'radio-off',
      { power: ['blue', 'solid'], air: dark, wan: ['blue', 'solid'] },
      'its radio is off',
      'Switch Wi-Fi on on its page'
    )
  ],
  moves: movesOf(`
    unpowered > starting
    starting > access-point, router, radio-off, unpowered
    access-point > router, starting, unpowered
    router > access-point, radio-off, starting, unpowered
    radio-off > router, starting, unpowered`),
  start: 'unpowered',
  lampsCanBeOff: false,
  methods: [
    {
      id: 'access-point',
      name: 'conversion to an access point',
      kind: 'access-point',
      needs: ['laptop'],
      steps: [
        {
          do: 'Join its network and open the address on its label',
          expect: 'router',
          ifNot: 'Reset it by the pin for ten seconds'
        },
        {
          do: 'Give it an address of the main range, and switch DHCP server, relay and secondary address off',
          ifNot: 'Each page has its own Apply'
        },
        {
          do: 'Restart it, then cable LAN to LAN',
          expect: 'access-point',
          wait: { leastMin: 0.5, usualMin: 1, mostMin: 2 },
          ifNot: 'Nothing goes into its WAN port'
        }
      ]
    },
    {
      id: 'own-page',
      name: 'its own page',
      kind: 'own-page',
      needs: ['laptop'],
      steps: [{ do: 'Open the address on its label', expect: 'router' }]
    }
  ],
  prompts: [],
  label: ['model', 'serial', 'mac', 'ssid', 'key', 'address', 'login'],
  masks: { serial: 'OM999A99999', mac: '00005EHHHHHH', key: 'demo999999', password: 'demo-aaa999' },
  defaultSsidPrefix: 'WEIR',
  radios: [{ band: '2.4', widthsMHz: [20, 40], streams: 2, powerDbm: 18, countries }],
  mesh: null,
  updates: 'managed',
  recoveryQuestions: true,
  firmware: {
    minimum: '1.0.9',
    installMin: { usual: 4, most: 8 },
    releases: releasesOf(`
    1.0.7 2019-06-01
    1.0.9 2021-10-12 hole`)
  }
}

/** Karstine: a plain modem. */
const sill: Model = {
  format: 'pasado.model/1',
  id: 'karstine-sill',
  version: 1,
  maker: 'Karstine',
  name: 'Sill',
  family: null,
  roles: ['modem'],
  box: [
    { item: 'Sill modem', count: 1, unit: 'karstine-sill' },
    { item: 'power adapter 12 V 1.5 A', count: 1, adapter: true },
    { item: 'coax cable 1.5 m', count: 1 }
  ],
  power: adapter(12, 1.5),
  ports: [
    { id: 'coax', name: 'Cable', colour: 'metal', kind: 'coax' },
    { id: 'lan', name: 'LAN', colour: 'yellow', kind: 'lan', mbps: 2500 }
  ],
  buttons: [],
  lamps: [
    { id: 'power', name: 'Power' },
    { id: 'line', name: 'Online' }
  ],
  states: [
    row('unpowered', { power: dark, line: dark }, 'no power', 'Check its adapter; a battery may keep it on'),
    row('starting', { power: ['white', 'blink'], line: dark }, 'starting', 'Wait', { usualMin: 1, maxMin: 3 }),
    row(
      'locking',
      { power: ['white', 'solid'], line: ['green', 'blink'] },
      'finding the line',
      'Wait until it settles, one to five minutes',
      { usualMin: 2, maxMin: 5 }
    ),
    row('well', { power: ['white', 'solid'], line: ['green', 'solid'] }, 'online, all is well', 'Nothing to do', {
      good: true
    }),
    row(
      'no-line',
      { power: ['white', 'solid'], line: dark },
      'no line',
      'Check the coax at both ends, then call the provider'
    )
  ],
  moves: movesOf(`
    unpowered > starting
    starting > locking, no-line, unpowered
    locking > well, no-line, unpowered
    well > locking, no-line, unpowered
    no-line > locking, unpowered`),
  start: 'unpowered',
  lampsCanBeOff: false,
  methods: [
    {
      id: 'activation',
      name: 'activation by the provider',
      kind: 'activation',
      needs: ['mobile-data-on'],
      steps: [
        {
          do: 'Lights out, cable in, on again',
          expect: 'well',
          wait: { leastMin: 1, usualMin: 3, mostMin: 5 },
          ifNot: 'Another outlet, then the provider'
        }
      ]
    }
  ],
  prompts: [],
  label: ['model', 'serial', 'mac'],
  masks: { serial: 'KS-99-999999', mac: '00005EHHHHHH' },
  defaultSsidPrefix: null,
  radios: [],
  mesh: null,
  updates: 'none',
  firmware: { minimum: '1', releases: [] }
}

/** Oldmere: a newer router with two bands; white on it means only that it is powered. */
const sluice: Model = {
  ...weir,
  id: 'oldmere-sluice',
  name: 'Sluice 1200',
  modeStopsDhcp: true,
  box: [
    { item: 'Sluice 1200 router', count: 1, unit: 'oldmere-sluice' },
    { item: 'power adapter 12 V 1 A', count: 1, adapter: true },
    { item: 'antenna', count: 2 },
    { item: 'network cable 1 m', count: 1 }
  ],
  power: adapter(12, 1),
  ports: [{ id: 'internet', name: 'Internet', colour: 'blue', kind: 'internet', mbps: 1000 }, ...lan],
  buttons: [
    {
      id: 'pair',
      name: 'Join',
      presses: [{ leastS: 1, mostS: 4, does: 'opens the pairing window for two minutes', pairs: true }]
    },
    {
      id: 'reset',
      name: 'Reset (pin)',
      presses: [
        { leastS: 1, mostS: 5, does: 'restart' },
        { leastS: 8, mostS: null, does: 'factory reset once the lamp blinks orange', confirms: 'resetting' }
      ]
    }
  ],
  lamps: [{ id: 'status', name: 'Status' }],
  states: [
    row('unpowered', { status: dark }, 'no power', 'Check its adapter and socket'),
    row(
      'powered',
      { status: ['white', 'solid'] },
      'only powered, not connected yet',
      'Check the cable in the Internet port',
      { usualMin: 1, maxMin: 5 }
    ),
    row('router', { status: ['green', 'solid'] }, 'online as a router', 'Nothing to do as a router', { good: true }),
    row(
      'access-point',
      { status: ['cyan', 'solid'] },
      'running as an access point',
      'Nothing to do as an access point',
      { good: true }
    ),
    row('no-internet', { status: ['orange', 'solid'] }, 'no internet', 'Check the cable to the modem, then the modem'),
    row('resetting', { status: ['orange', 'blink'] }, 'resetting', 'Wait until it turns white', { maxMin: 2 })
  ],
  moves: movesOf(`
    unpowered > powered
    powered > router, access-point, no-internet, resetting, unpowered
    router > no-internet, access-point, powered, resetting, unpowered
    access-point > router, powered, resetting, unpowered
    no-internet > router, powered, resetting, unpowered
    resetting > powered`),
  methods: [
    {
      id: 'own-page',
      name: 'its own page',
      kind: 'own-page',
      needs: ['laptop'],
      steps: [
        {
          do: 'Join its network and open the address on its label',
          expect: 'powered',
          ifNot: 'Reset it by the pin for eight seconds'
        },
        {
          do: 'Enter the connection settings and apply',
          expect: 'router',
          wait: { leastMin: 0.5, usualMin: 1, mostMin: 3 },
          ifNot: 'Restart the modem, then the router'
        }
      ]
    },
    {
      id: 'access-point',
      name: 'conversion to an access point',
      kind: 'access-point',
      needs: ['laptop'],
      steps: [
        {
          do: 'Switch its mode to access point on its page: it switches DHCP server off by itself',
          expect: 'access-point',
          wait: { leastMin: 1, usualMin: 2, mostMin: 4 },
          ifNot: 'Set the mode again, then restart it'
        }
      ]
    }
  ],
  masks: { serial: 'OS99A99999', mac: '00005EHHHHHH', key: 'demo999999', password: 'demo-aaa999' },
  defaultSsidPrefix: 'SLUICE',
  radios: twoBands,
  updates: 'either',
  firmware: {
    minimum: '2.1.4',
    installMin: { usual: 5, most: 10 },
    releases: releasesOf(`
    2.0.9 2023-05-02
    2.1.4 2025-07-30 needs:2.0.9 hole
    2.2.0 2026-06-11 needs:2.1.0`)
  }
}

/** Karstine: a fibre terminal. Its light is invisible and never looked into. */
const lintel: Model = {
  ...sill,
  id: 'karstine-lintel',
  name: 'Lintel',
  box: [
    { item: 'Lintel fibre terminal', count: 1, unit: 'karstine-lintel' },
    { item: 'power adapter 12 V 0.5 A', count: 1, adapter: true },
    { item: 'network cable 2 m', count: 1 },
    { item: 'wall plate and screws', count: 1 }
  ],
  power: adapter(12, 0.5),
  ports: [
    { id: 'fibre', name: 'Fibre', colour: 'green', kind: 'fibre' },
    { id: 'lan', name: 'LAN', colour: 'yellow', kind: 'lan', mbps: 2500 },
    { id: 'phone', name: 'Phone', colour: 'grey', kind: 'telephone' }
  ],
  buttons: [
    { id: 'reset', name: 'Reset (pin)', presses: [{ leastS: 1, mostS: 4, does: 'restart', confirms: 'starting' }] }
  ],
  lamps: [
    { id: 'power', name: 'Power' },
    { id: 'light', name: 'Light' },
    { id: 'line', name: 'Line' }
  ],
  states: [
    row(
      'unpowered',
      { power: dark, light: dark, line: dark },
      'no power',
      'Check its adapter; a battery may keep it on'
    ),
    row('starting', { power: ['green', 'blink'], light: dark, line: dark }, 'starting', 'Wait', {
      usualMin: 1,
      maxMin: 3
    }),
    row(
      'no-light',
      { power: ['green', 'solid'], light: ['red', 'solid'], line: dark },
      'no light on the fibre',
      'Check that the plug clicked in, never look into it; then call the provider'
    ),
    row(
      'ranging',
      { power: ['green', 'solid'], light: ['green', 'solid'], line: ['green', 'blink'] },
      'light is there, registering',
      'Wait',
      { usualMin: 2, maxMin: 10 }
    ),
    row(
      'well',
      { power: ['green', 'solid'], light: ['green', 'solid'], line: ['green', 'solid'] },
      'registered, all is well',
      'Nothing to do',
      { good: true }
    ),
    row(
      'refused',
      { power: ['green', 'solid'], light: ['green', 'solid'], line: ['red', 'solid'] },
      'the provider does not know this terminal',
      'Read its serial to the provider'
    )
  ],
  moves: movesOf(`
    unpowered > starting
    starting > no-light, ranging, unpowered
    no-light > ranging, starting, unpowered
    ranging > well, refused, no-light, unpowered
    well > ranging, no-light, starting, unpowered
    refused > ranging, starting, unpowered`),
  methods: [
    {
      id: 'activation',
      name: 'activation by the provider',
      kind: 'activation',
      needs: ['mobile-data-on'],
      steps: [
        {
          do: 'Push the green fibre plug in until it clicks, cap kept; never look into it',
          expect: 'ranging',
          wait: { leastMin: 1, usualMin: 2, mostMin: 5 },
          ifNot: 'Clean and push the plug again, then call the provider'
        },
        {
          do: 'Have the provider register its serial',
          expect: 'well',
          wait: { leastMin: 1, usualMin: 5, mostMin: 20 },
          ifNot: 'Read the serial to the provider once more'
        }
      ]
    }
  ],
  masks: { serial: 'KL-99-999999', mac: '00005EHHHHHH' }
}

export const others: Model[] = [weir, sluice, sill, lintel]
