import { corin, isolde, petroc, wenna } from '../company'
import { seededRandom } from '@pasado/core/values/random'
import { VisitScript, type ScriptedVisit } from '../visit-script'
import { configure, connect, lookAgain, mixedOnPurpose, place, startUp, unbox, type PlainUnit } from './complete'

const DAY = 24 * 60
const customers = [
  'Elowen Tarr',
  'Hob Vennick',
  'Sorrel Anstey',
  'Gideon Peverell',
  'Nessa Roke',
  'Cato Millow',
  'Brisa Lanyard',
  'Odo Hask',
  'Linnet Sarn',
  'Fenn Arbery',
  'Tamsin Ruel'
]
const streets = [
  '2 Curlew Bank',
  '31 Samphire Walk',
  '8 Pilot Lane',
  '14 Gull Rise',
  '5 Wrack Road',
  '27 Mooring Street',
  '6 Sandpiper Close',
  '40 Bell Hill',
  '12 Whelk Passage',
  '19 Salting Lane',
  '3 Cairn View'
]
const towns = ['Great Skerrow', 'Little Skerrow', 'Ness Skerrow']
const names = [
  'Sea Holly',
  'Windlass',
  'Cormorant',
  'Ebb and Flow',
  'Thrift',
  'Lodestar',
  'Storm Petrel',
  'Half Hitch',
  'Bright Water',
  'Oyster Bed',
  'Kittiwake'
]

const kits: Omit<PlainUnit, 'number'>[][] = [
  [
    { name: 'Gateway', model: 'brackwater-c3', role: 'gateway', place: 'hall' },
    { name: 'Landing extender', model: 'quillet-reed', role: 'extender', place: 'landing' }
  ],
  [
    { name: 'Router', model: 'ostrel-heron', role: 'router', place: 'study' },
    { name: 'Kitchen node', model: 'ostrel-tern', role: 'node', place: 'kitchen' }
  ],
  [
    { name: 'Router', model: 'fenmarrow-lattice-3', role: 'router', place: 'living room' },
    { name: 'Bedroom point', model: 'fenmarrow-lattice-3', role: 'node', place: 'bedroom' }
  ],
  [{ name: 'Gateway', model: 'brackwater-l2', role: 'gateway', place: 'hall' }]
]

/** Sealed visits of the last months, each at a home of its own; the same at every load. */
export function sealedScripts(): ScriptedVisit[] {
  const random = seededRandom(7)
  return customers.map((customerName, index) => {
    const kit = kits[Math.floor(random() * kits.length)]!
    const units = kit.map((unit, at): PlainUnit => ({ ...unit, number: 160 + index * 3 + at }))
    const line = units[0]!.model === 'brackwater-l2'
    const planned = -(index === 0 ? 4 : 1 + (index - 1) * 9) * DAY + (9 + Math.floor(random() * 7)) * 60
    const visit = new VisitScript(
      `sealed-${index}`,
      `sealed-${index}`,
      random() < 0.5 ? isolde : corin,
      petroc,
      { opened: planned - 3 * DAY, planned },
      {
        customerName,
        street: streets[index]!,
        town: towns[index % 3]!,
        phone: `555-01${80 + index}`,
        secondContact: `home${index}@example.org`,
        reason: 'new',
        accessLine: line ? 'telephone-line' : 'coax',
        speedDownMbps: line ? 80 : 300,
        speedUpMbps: line ? 20 : 30,
        providerSettings: line ? 'login' : 'automatic',
        telephone: line
      }
    )
    visit.after(3 * DAY)
    if (line) visit.brief({ lineCarries: 'nothing' })
    for (const step of [unbox, mixedOnPurpose, place]) step(visit, units)
    const last = units.at(-1)!
    if (index % 3 === 1)
      visit.setUnit(last.name, { heightM: 0.6 }).write('rule.acknowledged', {
        rule: 'place-height',
        subject: visit.id('unit', last.name),
        reason: 'The only socket is behind the low shelf; the customer wants no cable on the wall.'
      })
    for (const step of [connect, startUp]) step(visit, units)
    configure(visit, units, { home: names[index]!, guests: `${names[index]!} guests` }, 100 + index)
    if (last.model === 'quillet-reed')
      visit.setUnit(last.name, { firmwareAfter: '1.12' }).write(
        'waiver.granted',
        {
          rule: 'firm-minimum',
          subject: visit.id('unit', last.name),
          reason: 'The update stops at 80 % on units of this lot; the maker sends another.'
        },
        wenna
      )
    lookAgain(visit, units).handOver('yes')
    if (line) visit.answer('hand-voice-power')
    return visit.pack().seal().visit
  })
}
