import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import type { Author } from '@pasado/core/record/attribution'
import type { Facts } from '@pasado/core/record/facts'
import type { Model } from '@pasado/core/catalogue/model'
import { seededRandom } from '@pasado/core/values/random'
import type { Standard } from '@pasado/core/policy/standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { corin, isolde, wenna } from './company'
import { demoModels } from './models/all'

/** One line of a generated visit, before it is placed in its logbook. */
export interface GeneratedLine<K extends EntryKind = EntryKind> {
  kind: K
  body: Body<K>
  by: Author
  at: string
}

/** A generated visit: where, by whom, and every line but the seal. */
export interface GeneratedVisit {
  id: string
  home: string
  customer: string
  technician: Author
  openedAt: string
  sealedAt: string
  lines: GeneratedLine[]
}

/** The standard of visits that were taken over from paper: the few rules that such a record can be held to. */
export const takenOverStandard: Standard = {
  ...firstStandard,
  id: 'taken-over',
  note: 'What was on paper before',
  rules: [
    'brief-contact',
    'brief-service',
    'kit-identity',
    'kit-role',
    'place-final',
    'wifi-name',
    'firm-recorded',
    'firm-minimum',
    'firm-same',
    'hand-custody'
  ],
  levels: { 'firm-minimum': 'note', 'firm-same': 'note' }
}

const firsts = [
  'Ailith',
  'Bevis',
  'Corwen',
  'Dorrit',
  'Edlyn',
  'Farran',
  'Gwenna',
  'Hesper',
  'Ivo',
  'Jory',
  'Kerensa',
  'Lowen',
  'Merryn',
  'Nance',
  'Osric',
  'Peryn',
  'Quill',
  'Rowena',
  'Senara',
  'Tegen',
  'Ursell',
  'Veryan',
  'Wella',
  'Yestin',
  'Zennor',
  'Alwyn',
  'Brannoc',
  'Cubert',
  'Demelza',
  'Elestren'
]
const [heads, tails] = [
  [
    'Tre',
    'Pen',
    'Pol',
    'Sker',
    'Hal',
    'Car',
    'Ros',
    'Lan',
    'Bos',
    'Nan',
    'Wend',
    'Marl',
    'Thorn',
    'Gull',
    'Strand',
    'Holm'
  ],
  [
    'gar',
    'wick',
    'ennis',
    'dock',
    'veth',
    'marrow',
    'ling',
    'ost',
    'rick',
    'harn',
    'vane',
    'low',
    'mere',
    'sted',
    'quay',
    'dell'
  ]
]
const [roads, ways] = [
  [
    'Anchor',
    'Bollard',
    'Capstan',
    'Dunlin',
    'Eider',
    'Fathom',
    'Groyne',
    'Halyard',
    'Isinglass',
    'Jetty',
    'Keel',
    'Lugger',
    'Mizzen',
    'Nettle',
    'Oyster',
    'Plover',
    'Quayside',
    'Ropewalk',
    'Shingle',
    'Tideline',
    'Undertow',
    'Vessel',
    'Wharf',
    'Yawl'
  ],
  ['Row', 'Lane', 'Street', 'Steps', 'Close', 'Hill', 'Walk', 'Yard', 'Bank', 'Terrace']
]
const isles = ['Great Skerrow', 'Little Skerrow', 'Ness Skerrow']
const rooms = ['hall', 'study', 'kitchen', 'landing', 'loft', 'parlour', 'back bedroom', 'workshop']
const kits: readonly (readonly [model: string, role: Facts<'unit'>['role']][])[] = [
  [
    ['ostrel-heron', 'router'],
    ['ostrel-tern', 'node'],
    ['ostrel-tern', 'node'],
    ['ostrel-tern', 'node']
  ],
  [
    ['fenmarrow-lattice-3', 'router'],
    ['fenmarrow-lattice-3', 'node'],
    ['fenmarrow-lattice-3', 'node'],
    ['fenmarrow-lattice-3', 'node'],
    ['fenmarrow-lattice-3', 'node']
  ],
  [
    ['brackwater-c3', 'gateway'],
    ['quillet-reed', 'extender'],
    ['quillet-reed', 'extender'],
    ['quillet-reed', 'extender']
  ],
  [
    ['brackwater-l2', 'gateway'],
    ['ostrel-heron', 'router'],
    ['ostrel-tern', 'node'],
    ['ostrel-tern', 'node']
  ]
]

const DAY = 24 * 3_600_000

/**
 * A made-up company of many homes, one visit after another, the same for the same seed and day. One home in five has been visited
 * twice; a home has four or five units. Nothing of it is held in memory.
 */
export function* largeCompany({
  homes,
  seed = 11,
  today
}: {
  homes: number
  seed?: number
  today: Date
}): Generator<GeneratedVisit> {
  const random = seededRandom(seed)
  const models = new Map(demoModels.map((model) => [model.id, model]))
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const id = (version: 4 | 7 = 4, at = 0): string => {
    const hex = Array.from({ length: 4 }, () =>
      Math.floor(random() * 2 ** 32)
        .toString(16)
        .padStart(8, '0')
    ).join('')
    const head = version === 7 ? at.toString(16).padStart(12, '0') : hex.slice(0, 12)
    return `${head.slice(0, 8)}-${head.slice(8)}-${version}${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20)}`
  }
  const midnight = Date.UTC(today.getUTCFullYear(), today.getUTCMonth(), today.getUTCDate())
  let number = 0
  for (let at = 0; at < homes; at++) {
    const [home, customer, technician] = [id(), id(), pick([isolde, corin])]
    const customerName = `${pick(firsts)} ${pick(heads)}${pick(tails)}`
    const brief: Facts<'brief'> = {
      customerName,
      street: `${1 + Math.floor(random() * 240)} ${pick(roads)} ${pick(ways)}`,
      town: pick(isles),
      country: 'XS',
      phone: `555-01${String(at % 100).padStart(2, '0')}`,
      secondContact: `home${at}@example.org`,
      accessLine: 'coax',
      speedDownMbps: 300,
      speedUpMbps: 30,
      providerSettings: 'automatic'
    }
    const units = pick(kits).map(([model, role], index) => {
      number += 1
      return {
        id: id(),
        model: models.get(model)!,
        facts: {
          name: index === 0 ? 'Router' : `Unit ${index + 1}`,
          model,
          modelVersion: 1,
          role,
          serial: `${model.slice(0, 2).toUpperCase()}${number.toString(36).toUpperCase().padStart(7, '0')}`,
          mac: macOf(number),
          place: rooms[(index + at) % rooms.length]!
        } satisfies Facts<'unit'>
      }
    })
    const network = id()
    const first = midnight - (40 + Math.floor(random() * 1400)) * DAY + 9 * 3_600_000
    const visits = random() < 0.2 ? [first, first + (10 + Math.floor(random() * 25)) * DAY] : [first]
    let startedFrom: string | null = null
    for (const openedAt of visits) {
      const visit = id(7, openedAt)
      let minute = 0
      const lines: GeneratedLine[] = []
      const write = <K extends EntryKind>(kind: K, body: Body<K>) =>
        lines.push({
          kind,
          body,
          by: kind === 'visit.opened' ? wenna : technician,
          at: new Date(openedAt + 60_000 * minute++).toISOString()
        })
      write('visit.opened', {
        home,
        customer,
        technician: { id: technician.id, name: technician.name },
        standard: { id: takenOverStandard.id, version: takenOverStandard.version },
        startedFrom,
        brief: { ...brief, plannedAt: new Date(openedAt).toISOString(), reason: startedFrom ? 'fault' : 'new' }
      })
      for (const unit of units)
        write('unit.set', {
          id: unit.id,
          set: { ...unit.facts, ...versions(unit.model, random, startedFrom !== null) }
        })
      write('network.set', {
        id: network,
        set: { ssid: `${pick(roads)} ${at}`, use: 'main', bands: ['2.4', '5'], security: 'wpa2-wpa3' }
      })
      write('custody.answered', { custody: 'customer-only-now' })
      yield {
        id: visit,
        home,
        customer,
        technician,
        openedAt: new Date(openedAt).toISOString(),
        sealedAt: new Date(openedAt + 60_000 * (minute + 90)).toISOString(),
        lines
      }
      startedFrom = visit
    }
  }
}

/** A locally administered address of its own for each number. */
function macOf(number: number): string {
  return `02:53:${number.toString(16).padStart(8, '0').match(/../g)!.join(':')}`
}

/** What a unit came with and runs: mostly an approved version, later visits newer ones. */
function versions(
  { firmware }: Model,
  random: () => number,
  later: boolean
): Pick<Facts<'unit'>, 'firmwareBefore' | 'firmwareAfter'> {
  const all = firmware.releases.map(({ version }) => version)
  const at = Math.min(all.length - 1, Math.floor(random() * all.length * (later ? 1.6 : 1.2)))
  return { firmwareBefore: all[Math.max(0, at - 1)]!, firmwareAfter: all[at]! }
}
