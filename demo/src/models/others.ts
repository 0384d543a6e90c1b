import type { Model } from '@pasado/core/catalogue/model'
import { adapter, countries, dark, movesOf, releasesOf, row, twoBands } from './parts'

const lan = [1, 2, 3, 4].map((number) => ({ id: `lan-${number}`, name: String(number), colour: 'black', kind: 'lan' as const, mbps: 1000 }))

/** Oldmere: an old router, often made an access point. Its blue steady is well. */
const weir: Model = {
  format: 'pasado.model/1', id: 'oldmere-weir', version: 1, maker: 'Oldmere', name: 'Weir 300', family: null,
  roles: ['router', 'access-point'],
  box: [{ item: 'Weir 300 router', count: 1 }, { item: 'power adapter 9 V 1 A', count: 1 }],
  power: adapter(9, 1),
  ports: [{ id: 'internet', name: 'WAN', colour: 'blue', kind: 'internet', mbps: 100 }, ...lan],
  buttons: [{ id: 'reset', name: 'Reset (pin)', presses: [{ leastS: 1, mostS: 5, does: 'restart' }, { leastS: 10, mostS: null, does: 'factory reset once Power blinks', confirms: 'starting' }] }],
  lamps: [{ id: 'power', name: 'Power' }, { id: 'wan', name: 'WAN' }, { id: 'air', name: 'Wi-Fi' }],
  states: [
    row('unpowered', { power: dark, wan: dark, air: dark }, 'no power', 'Check its adapter and socket'),
    row('starting', { power: ['blue', 'blink'], wan: dark, air: dark }, 'starting', 'Wait a minute', { usualMin: 1, maxMin: 2 }),
    row('access-point', { power: ['blue', 'solid'], wan: dark, air: ['blue', 'solid'] }, 'running, nothing in the WAN port', 'Nothing to do as an access point', { good: true }),
    row('router', { power: ['blue', 'solid'], wan: ['blue', 'solid'], air: ['blue', 'solid'] }, 'running as a router', 'Nothing to do as a router', { good: true }),
    row('radio-off', { power: ['blue', 'solid'], air: dark, wan: ['blue', 'solid'] }, 'its radio is off', 'Switch Wi-Fi on on its page')
  ],
  moves: movesOf(`
    unpowered > starting
    starting > access-point, router, radio-off, unpowered
    access-point > router, starting, unpowered
    router > access-point, radio-off, starting, unpowered
    radio-off > router, starting, unpowered`),
  start: 'unpowered', lampsCanBeOff: false,
  methods: [
    { id: 'access-point', name: 'conversion to an access point', kind: 'access-point', needs: ['laptop'],
      steps: [
        { do: 'Join its network and open the address on its label', expect: 'router', ifNot: 'Reset it by the pin for ten seconds' },
        { do: 'Give it an address of the main range, and switch DHCP server, relay and secondary address off', ifNot: 'Each page has its own Apply' },
        { do: 'Restart it, then cable LAN to LAN', expect: 'access-point', wait: { leastMin: 0.5, usualMin: 1, mostMin: 2 }, ifNot: 'Nothing goes into its WAN port' }
      ] },
    { id: 'own-page', name: 'its own page', kind: 'own-page', needs: ['laptop'], steps: [{ do: 'Open the address on its label', expect: 'router' }] }
  ],
  prompts: [], label: ['model', 'serial', 'mac', 'ssid', 'key', 'address', 'login'],
  defaultSsidPrefix: 'WEIR', radios: [{ band: '2.4', widthsMHz: [20, 40], streams: 2, powerDbm: 18, countries }], mesh: null, updates: 'managed',
  firmware: { minimum: '1.0.9', releases: releasesOf(`
    1.0.7 2019-06-01
    1.0.9 2021-10-12 hole`) }
}

/** Karstine: a plain modem. */
const sill: Model = {
  format: 'pasado.model/1', id: 'karstine-sill', version: 1, maker: 'Karstine', name: 'Sill', family: null,
  roles: ['modem'],
  box: [{ item: 'Sill modem', count: 1 }, { item: 'power adapter 12 V 1.5 A', count: 1 }, { item: 'coax cable 1.5 m', count: 1 }],
  power: adapter(12, 1.5),
  ports: [{ id: 'coax', name: 'Cable', colour: 'metal', kind: 'coax' }, { id: 'lan', name: 'LAN', colour: 'yellow', kind: 'lan', mbps: 2500 }],
  buttons: [],
  lamps: [{ id: 'power', name: 'Power' }, { id: 'line', name: 'Online' }],
  states: [
    row('unpowered', { power: dark, line: dark }, 'no power', 'Check its adapter; a battery may keep it on'),
    row('starting', { power: ['white', 'blink'], line: dark }, 'starting', 'Wait', { usualMin: 1, maxMin: 3 }),
    row('locking', { power: ['white', 'solid'], line: ['green', 'blink'] }, 'finding the line', 'Wait until it settles, one to five minutes', { usualMin: 2, maxMin: 5 }),
    row('well', { power: ['white', 'solid'], line: ['green', 'solid'] }, 'online, all is well', 'Nothing to do', { good: true }),
    row('no-line', { power: ['white', 'solid'], line: dark }, 'no line', 'Check the coax at both ends, then call the provider')
  ],
  moves: movesOf(`
    unpowered > starting
    starting > locking, no-line, unpowered
    locking > well, no-line, unpowered
    well > locking, no-line, unpowered
    no-line > locking, unpowered`),
  start: 'unpowered', lampsCanBeOff: false,
  methods: [{ id: 'activation', name: 'activation by the provider', kind: 'activation', needs: ['mobile-data-on'], steps: [{ do: 'Lights out, cable in, on again', expect: 'well', wait: { leastMin: 1, usualMin: 3, mostMin: 5 }, ifNot: 'Another outlet, then the provider' }] }],
  prompts: [], label: ['model', 'serial', 'mac'], defaultSsidPrefix: null, radios: [], mesh: null, updates: 'none',
  firmware: { minimum: '1', releases: [] }
}

/** Tolvane: a ceiling access point run by a controller. */
const spindle: Model = {
  ...weir, id: 'tolvane-spindle', maker: 'Tolvane', name: 'Spindle', roles: ['access-point'],
  box: [{ item: 'Spindle access point', count: 1 }, { item: 'mounting plate', count: 1 }, { item: 'screws', count: 4 }],
  power: null,
  ports: [{ id: 'lan', name: 'Network and power', colour: 'grey', kind: 'lan', mbps: 2500, powerInClass: 4 }],
  buttons: [{ id: 'reset', name: 'Reset (pin)', presses: [{ leastS: 5, mostS: null, does: 'factory reset once the ring turns white', confirms: 'adoptable' }] }],
  lamps: [{ id: 'ring', name: 'Ring' }],
  states: [
    row('unpowered', { ring: dark }, 'no power', 'Check the powered port and the switch’s budget'),
    row('starting', { ring: ['white', 'blink'] }, 'starting', 'Wait', { usualMin: 1, maxMin: 3 }),
    row('adoptable', { ring: ['white', 'solid'] }, 'powered, waiting to be adopted', 'Adopt it in the controller', { maxMin: 30 }),
    row('adopting', { ring: ['white/blue', 'alternate'] }, 'being adopted or updated', 'Leave it alone', { usualMin: 4, maxMin: 12 }),
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
  methods: [{ id: 'adoption', name: 'adoption by the controller', kind: 'adoption', needs: ['controller'],
    steps: [{ do: 'Plug it into a powered port and adopt it in the controller', expect: 'well', wait: { leastMin: 2, usualMin: 5, mostMin: 12 }, ifNot: 'Reset it by the pin until the ring turns white' }] }],
  label: ['model', 'serial', 'mac'], defaultSsidPrefix: null, radios: twoBands, updates: 'managed',
  firmware: { minimum: '6.5.28', releases: releasesOf(`
    6.5.20 2025-04-01
    6.5.28 2025-12-09 hole`) }
}

export const others: Model[] = [weir, sill, spindle]
