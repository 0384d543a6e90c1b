import { corin, isolde, petroc, wenna } from '../company'
import { VisitScript, type ScriptedVisit } from '../visit-script'
import { configure, connect, lookAgain, mixedOnPurpose, place, startUp, unbox, type PlainUnit } from './complete'
import { homes, type HomeName } from './homes'
import { cellarNode, lighthousePlan, terracePlan } from './plans'

const DAY = 24 * 60
const at = (hour: number, minute = 0) => hour * 60 + minute

function script(
  name: string,
  home: HomeName,
  technician: typeof isolde,
  planned: number,
  reason: 'new' | 'extend' | 'convert' | 'add-node' | 'swap' | 'fault',
  opened = planned - 2 * DAY
): VisitScript {
  return new VisitScript(name, home, technician, petroc, { opened, planned }, { ...homes[home], reason })
}

const lighthouseUnits: PlainUnit[] = [
  { name: 'Gateway', model: 'brackwater-c3', role: 'gateway', place: 'hall cupboard', number: 17 },
  { name: 'Hall point', model: 'fenmarrow-lattice-3', role: 'router', place: 'hall shelf', number: 18 },
  { name: 'Loft point', model: 'fenmarrow-lattice-3', role: 'node', place: 'loft, by the window', number: 19 },
  { name: 'Lamp-room point', model: 'fenmarrow-lattice-3', role: 'node', place: 'lamp room landing', number: 20 }
]

/** At Start up: a mesh on a coax gateway, one point waiting to pair, one weak. */
function lighthouse(): VisitScript {
  const visit = script('lighthouse', 'lighthouse', isolde, at(9, 30), 'new')
  visit.after(2 * DAY)
  unbox(visit, lighthouseUnits)
  place(visit, lighthouseUnits)
  visit.setUnit('Lamp-room point', { heightM: 0.7 })
  lighthousePlan(visit)
  connect(visit, lighthouseUnits)
  visit.write(
    'waiver.granted',
    {
      rule: 'place-height',
      subject: visit.id('unit', 'Lamp-room point'),
      reason: 'The only outlet up there; it is three rooms from anything else.'
    },
    wenna
  )
  visit
    .setUnit('Gateway', { method: 'activation', needsReady: ['mobile-data-on', 'customer-account'] })
    .prompts('Gateway', 'brackwater-c3')
  visit
    .seen('Gateway', 'brackwater-c3', 'starting', 'seeking', 'activating')
    .after(14)
    .seen('Gateway', 'brackwater-c3', 'well')
  visit.setUnit('Hall point', {
    method: 'app',
    needsReady: ['app-latest', 'customer-account', 'location', 'local-network']
  })
  visit.seen('Hall point', 'fenmarrow-lattice-3', 'powered', 'ready', 'updating')
  visit.setUnit('Loft point', { method: 'push-button' }).seen('Loft point', 'fenmarrow-lattice-3', 'powered', 'ready')
  visit
    .setUnit('Lamp-room point', { method: 'push-button' })
    .seen('Lamp-room point', 'fenmarrow-lattice-3', 'powered', 'ready', 'pairing', 'weak')
  return visit
}

const captainUnits: PlainUnit[] = [
  { name: 'Gateway', model: 'brackwater-l2', role: 'gateway', place: 'hall, under the stairs', number: 33 },
  { name: 'Router', model: 'ostrel-heron', role: 'router', place: 'parlour dresser', number: 34 },
  { name: 'Landing node', model: 'ostrel-tern', role: 'node', place: 'first landing', number: 35 },
  { name: 'Attic node', model: 'ostrel-tern', role: 'node', place: 'attic desk', number: 36 }
]

/** Sealed six weeks ago; the first of two revisions. */
function captainBefore(): VisitScript {
  const visit = script('captain-before', 'captain', isolde, at(10) - 42 * DAY, 'new')
  visit.after(2 * DAY).brief({ lineCarries: 'nothing' })
  for (const step of [unbox, mixedOnPurpose, place, connect, startUp]) step(visit, captainUnits)
  configure(visit, captainUnits, { home: 'Gannet Cove', guests: 'Gannet Cove guests' }, 11)
  terracePlan(visit).brief({ doubleNatReason: 'The provider’s gateway cannot be bridged.' })
  lookAgain(visit, captainUnits)
  return visit.handOver('yes').answer('hand-voice-power').pack().seal()
}

/** At Configure: a fourth node added by cable, an address slipped, the versions apart. */
function captainNow(): VisitScript {
  const visit = script('captain-now', 'captain', isolde, at(13, 15), 'add-node', at(8))
  visit.after(at(13, 20) - at(8)).brief({ lineCarries: 'nothing' })
  const node: PlainUnit = { name: 'Cellar node', model: 'ostrel-tern', role: 'node', place: 'wine cellar', number: 37 }
  unbox(visit, [node])
  place(visit, [node])
  startUp(visit, [...captainUnits, node])
  cellarNode(visit)
  visit
    .host('Cellar node', 'Home', '192.169.20.244')
    .setUnit('Cellar node', { firmwareBefore: '2.8.1', firmwareAfter: '3.0.0', updates: 'automatic' })
  for (const { name } of captainUnits) visit.setUnit(name, { firmwareAfter: name === 'Gateway' ? '5.3' : '3.1.0' })
  return visit
}

const boathouseUnits: PlainUnit[] = [
  { name: 'Router', model: 'ostrel-heron', role: 'router', place: 'net store shelf', number: 49 },
  { name: 'Loft extender', model: 'quillet-reed', role: 'extender', place: 'loft socket', number: 50 }
]

/** Waits for review with two breaks. */
function boathouse(): VisitScript {
  const visit = script('boathouse', 'boathouse', corin, at(14) - DAY, 'extend')
  // What was planned in the workshop, before anybody saw the loft.
  for (const [name, model, role, stays] of [
    ['Router', 'ostrel-heron', 'router', 'net store shelf'],
    ['Loft extender', 'quillet-rush', 'extender', 'loft landing']
  ] as const)
    visit.write('unit.set', { id: visit.id('unit', name), set: { name, model, modelVersion: 1, role, place: stays } })
  visit.after(2 * DAY)
  for (const step of [unbox, mixedOnPurpose, place, connect, startUp]) step(visit, boathouseUnits)
  configure(visit, boathouseUnits, { home: 'Puffin Post', guests: 'Puffin guests' }, 23)
  visit.setUnit('Loft extender', { heightM: 0.3, firmwareAfter: '1.12' })
  lookAgain(visit, boathouseUnits).handOver('yes')
  return visit.pack().write('review.asked', {
    remark: 'The loft has one socket, at the skirting. The extender’s update fails at 80 %; the maker knows.'
  })
}

const bunkhouseUnits: PlainUnit[] = [
  { name: 'Gateway', model: 'brackwater-c3', role: 'gateway', place: 'mess room', number: 65 },
  { name: 'Eel A', model: 'quillet-eel', role: 'powerline-adapter', place: 'mess room wall socket', number: 66 },
  { name: 'Eel B', model: 'quillet-eel', role: 'powerline-adapter', place: 'drying loft wall socket', number: 67 },
  {
    name: 'Drying-loft access point',
    model: 'oldmere-weir',
    role: 'access-point',
    place: 'drying loft beam',
    number: 68
  }
]

/** Ready to sign. */
function bunkhouse(): VisitScript {
  const visit = script('bunkhouse', 'bunkhouse', isolde, at(15, 45), 'extend')
  visit.after(2 * DAY)
  for (const step of [unbox, mixedOnPurpose, place, connect, startUp]) step(visit, bunkhouseUnits)
  configure(visit, bunkhouseUnits, { home: 'Tidepool', guests: 'Tidepool guests' }, 31)
  return lookAgain(visit, bunkhouseUnits).handOver('yes', 'dim').pack()
}

/** At Kit: an old router to be made an access point. */
function bakery(): VisitScript {
  const visit = script('bakery', 'bakery', corin, at(11), 'convert')
  visit.after(2 * DAY).unit('Old router', 'oldmere-weir', 81, { used: true })
  return visit
}

/** At Brief, for tomorrow. */
const studio = () => script('studio', 'studio', isolde, at(9) + DAY, 'new')

/** At Place. */
function gatehouse(): VisitScript {
  const visit = script('gatehouse', 'gatehouse', corin, at(13), 'new')
  const units: PlainUnit[] = [
    { name: 'Modem', model: 'karstine-sill', role: 'modem', place: '', number: 97 },
    { name: 'Router', model: 'ostrel-heron', role: 'router', place: '', number: 98 },
    { name: 'Wall node', model: 'ostrel-dunlin', role: 'node', place: '', number: 99 }
  ]
  visit.after(2 * DAY)
  return unbox(visit, units)
}

const chandleryUnits: PlainUnit[] = [
  { name: 'Gateway', model: 'brackwater-c3', role: 'gateway', place: 'shop counter', number: 113 },
  { name: 'Store extender', model: 'quillet-reed', role: 'extender', place: 'rope store', number: 114 }
]

/** At Hand over: a fault visit, all mended, the choices still to be asked. */
function chandlery(): VisitScript {
  const visit = script('chandlery', 'chandlery', corin, at(16), 'fault')
  visit.after(2 * DAY)
  for (const step of [unbox, mixedOnPurpose, place, connect, startUp]) step(visit, chandleryUnits)
  configure(visit, chandleryUnits, { home: 'Marline Spike' }, 43)
  return lookAgain(visit, chandleryUnits)
}

const smokehouseUnits: PlainUnit[] = [
  { name: 'Gateway', model: 'brackwater-c3', role: 'gateway', place: 'curing room', number: 129 }
]

/** At Connect: placed, nothing on yet. */
function smokehouse(): VisitScript {
  const visit = script('smokehouse', 'smokehouse', isolde, at(17), 'swap')
  visit.after(2 * DAY)
  for (const step of [unbox, place]) step(visit, smokehouseUnits)
  return visit
}

const schoolhouseUnits: PlainUnit[] = [
  { name: 'Router', model: 'fenmarrow-lattice-3', role: 'router', place: 'bookcase', number: 145 },
  { name: 'Upstairs point', model: 'fenmarrow-lattice-3', role: 'node', place: 'upper landing', number: 146 }
]

/** At Prove: all configured; back from review with remarks. */
function schoolhouse(): VisitScript {
  const visit = script('schoolhouse', 'schoolhouse', isolde, at(11, 30), 'new')
  visit.after(2 * DAY)
  for (const step of [unbox, mixedOnPurpose, place, connect, startUp]) step(visit, schoolhouseUnits)
  configure(visit, schoolhouseUnits, { home: 'Inkwell' }, 57)
  lookAgain(visit, schoolhouseUnits, (script) => {
    for (const room of ['Schoolroom', 'Kitchen', 'Upper landing']) script.namedRoom(room)
    script.measured('source', {
      at: 'source',
      by: 'laptop',
      how: 'typed',
      runs: [
        { downMbps: 871, upMbps: 96, idleMs: 9, loadedMs: 24 },
        { downMbps: 864, upMbps: 97, idleMs: 10, loadedMs: 26 }
      ]
    })
    script.measured('schoolroom', {
      at: 'room',
      room: script.id('room', 'Schoolroom'),
      unit: script.id('unit', 'Router'),
      band: '5',
      dbm: -49,
      by: 'phone',
      how: 'typed',
      runs: [{ downMbps: 268, upMbps: 28, idleMs: 12, loadedMs: 31 }]
    })
    script.measured('landing', {
      at: 'room',
      room: script.id('room', 'Upper landing'),
      unit: script.id('unit', 'Upstairs point'),
      band: '5',
      dbm: -55,
      by: 'phone',
      how: 'typed',
      runs: [
        { downMbps: 41, upMbps: 12, idleMs: 24, loadedMs: 95 },
        { downMbps: 38, upMbps: 11, idleMs: 26, loadedMs: 102 },
        { downMbps: 44, upMbps: 12, idleMs: 22, loadedMs: 88 }
      ]
    })
  })
  return visit
    .write('review.asked', { remark: 'All configured.' })
    .write('review.returned', { remark: 'Please measure the upper landing before you ask again.' }, wenna)
}

/** Visits that are not sealed, one at least at each stage, and the sealed one before the second revision. */
export function openScripts(): ScriptedVisit[] {
  return [
    captainBefore(),
    lighthouse(),
    captainNow(),
    boathouse(),
    bunkhouse(),
    bakery(),
    studio(),
    gatehouse(),
    chandlery(),
    smokehouse(),
    schoolhouse()
  ].map(({ visit }) => visit)
}
