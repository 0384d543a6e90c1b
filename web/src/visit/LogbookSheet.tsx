import type { Catalogue } from '@pasado/core/catalogue/model'
import type { ThingKind } from '@pasado/core/record/facts'
import type { CableEnd } from '@pasado/core/record/things/cable'
import { format } from 'date-fns'
import { causes } from '@pasado/core/work/diagnose/causes'
import { observationOf } from '@pasado/core/work/diagnose/observations'
import type { Entry } from '@pasado/core/record/entry'
import { lookWords } from '@pasado/core/catalogue/look'
import { unitName, type VisitRecord } from '@pasado/core/record/record'
import { fieldWords, valueWords } from '@pasado/core/documents/field-words'
import { Sheet } from '../ui/Sheet'
import { useVisit } from './store'

/** What an entry says, in words; secrets are never in one. */
function entryWords(entry: Entry, record: VisitRecord, catalogue: Catalogue): string {
  const unit = (id: string) => (record.units[id] ? unitName(record.units[id]) : 'a unit')
  const values = (set: Record<string, unknown>, kind = entry.kind.slice(0, -4) as ThingKind) =>
    Object.entries(set)
      .map(([field, value]) => `${fieldWords(field)} ${valueWords(record, catalogue, kind, field, value) ?? 'cleared'}`)
      .join(' · ')
  switch (entry.kind) {
    case 'visit.opened':
      return 'Visit opened'
    case 'brief.set':
      return `Brief: ${values(entry.body.set)}`
    case 'unit.set':
      return `${unit(entry.body.id)}: ${values(entry.body.set)}`
    case 'storey.set':
    case 'room.set':
    case 'wall.set':
    case 'opening.set':
    case 'outlet.set':
    case 'trouble.set':
    case 'reading.set':
    case 'fitting.set':
    case 'segment.set':
    case 'pool.set':
    case 'host.set':
    case 'network.set':
    case 'radio.set':
    case 'device.set':
      return `${entry.kind.slice(0, -4)}: ${values(entry.body.set)}`
    case 'cable.set': {
      const end = (value: CableEnd) => `${value.thing === 'unit' ? unit(value.id) : value.thing} ${value.port}`
      const { a, b, ...rest } = entry.body.set
      return `Cable: ${values({ ...rest, ...(a ? { from: end(a as CableEnd) } : {}), ...(b ? { to: end(b as CableEnd) } : {}) })}`
    }
    case 'measurement.set': {
      const { runs, ...rest } = entry.body.set
      return `Measurement: ${values({ ...rest, ...(Array.isArray(runs) ? { runs: runs.length } : {}) })}`
    }
    case 'path.seen':
      return `${unit(entry.body.unit)}: somebody on its air, with ${entry.body.address}`
    case 'check.booked':
      return `Check booked for ${format(new Date(entry.body.from), 'd MMM HH:mm')}`
    case 'check.cancelled':
      return 'A booked check taken back'
    case 'fault.search':
      return `Looking for a fault${entry.body.about.unit ? ` of ${unit(entry.body.about.unit)}` : ''}`
    case 'fault.observed':
      return `Looking for the fault: ${observationOf(entry.body.observation)?.asks ?? entry.body.observation} ${entry.body.answer === null ? 'taken back' : (observationOf(entry.body.observation)?.answers.find(({ id }) => id === entry.body.answer)?.words ?? entry.body.answer)}`
    case 'fault.found':
      return `The fault: ${causes.find(({ id }) => id === entry.body.cause)?.name ?? entry.body.cause}, ${{ mended: 'mended', provider: 'handed to the provider', maker: 'handed to the maker', left: 'left as it is' }[entry.body.end]}`
    case 'neighbours.noted':
      return `${entry.body.networks.length} networks of neighbours noted`
    case 'method.step':
      return `${unit(entry.body.unit)}: step ${entry.body.step + 1} done, ${entry.body.seen ? 'seen as it is to be' : 'not seen as it is to be'}`
    case 'pairing.pressed':
      return `${unit(entry.body.unit)}: ${entry.body.which} press, on ${unit(entry.body.on)}`
    case 'button.pressed':
      return `${unit(entry.body.unit)}: ${entry.body.button} held ${entry.body.seconds} s`
    case 'unit.read':
      return `${unit(entry.body.unit)}: ${Object.keys(entry.body.values).length} values read from its own page`
    case 'house.bound':
      return entry.body.house ? 'Practised on a simulated house from here' : 'No longer on a simulated house'
    case 'box.set':
      return `Box: ${values(entry.body.set)}`
    case 'items.checked':
      return `In the box, ${entry.body.state}: ${entry.body.items.join(', ')}${entry.body.done ? `; ${entry.body.done}` : ''}`
    case 'unit.elsewhere':
      return entry.body.found.length
        ? `${unit(entry.body.unit)}: the same serial or MAC address stands at another home`
        : `${unit(entry.body.unit)}: stands at no other home any more`
    case 'unit.transferred':
      return `${unit(entry.body.unit)}: brought from another home: ${entry.body.reason}`
    case 'photo.added':
      return `${entry.body.label ? 'Photo of a label' : 'Photo'} of ${entry.body.about.thing === 'unit' ? unit(entry.body.about.id) : entry.body.about.id}${entry.body.caption ? `: ${entry.body.caption}` : ''}`
    case 'photo.captioned':
      return entry.body.caption ? `Photo captioned: ${entry.body.caption}` : 'Caption of a photo taken away'
    case 'photo.removed':
      return 'A photo taken out'
    case 'photo.restored':
      return 'A photo put back'
    case 'thing.removed':
      return `A ${entry.body.thing} taken out`
    case 'thing.restored':
      return `A ${entry.body.thing} put back`
    case 'lamp.seen':
      return `${unit(entry.body.unit)}: seen ${entry.body.lamps.map((look) => `${look.lamp} ${lookWords(look)}`).join('; ')}`
    case 'unit.event':
      return `${unit(entry.body.unit)}: ${entry.body.what.replace('-', ' ')}`
    case 'prompt.answered':
      return `${unit(entry.body.unit)}: prompt ${entry.body.prompt} answered ${entry.body.answer}`
    case 'choice.answered':
      return `Choice ${entry.body.choice}: ${entry.body.answer}`
    case 'custody.answered':
      return `Custody: ${entry.body.custody.replaceAll('-', ' ')}${entry.body.keeps ? `: ${entry.body.keeps.join(', ').replaceAll('-', ' ')}` : ''}${entry.body.until ? ` until ${entry.body.until}` : ''}`
    case 'rule.answered':
      return `${entry.body.rule} answered ${entry.body.answer}`
    case 'rule.acknowledged':
      return `${entry.body.rule} acknowledged: ${entry.body.reason}`
    case 'waiver.granted':
      return `${entry.body.rule} waived${entry.body.until ? ` until ${entry.body.until}` : ''}: ${entry.body.reason}`
    case 'waiver.withdrawn':
      return `Waiver of ${entry.body.rule} withdrawn`
    case 'conflict.settled':
      return `Conflict over ${entry.body.field} settled: the ${entry.body.keep} kept`
    case 'wait.started':
      return `Wait started: ${entry.body.what}`
    case 'wait.ended':
      return 'Wait ended'
    case 'note.written':
      return `Note: ${entry.body.text}`
    case 'review.asked':
      return `Sent to review: ${entry.body.remark}`
    case 'review.returned':
      return `Back from review: ${entry.body.remark}`
    case 'visit.handed':
      return `Goes on with ${entry.body.technician.name}: ${entry.body.reason}`
    case 'standard.moved':
      return `Checked by version ${entry.body.standard.version} of the standard from here on${entry.body.reason ? `: ${entry.body.reason}` : ''}`
    case 'review.approved':
      return `Approved${entry.body.remark ? `: ${entry.body.remark}` : ''}`
    case 'secret.kept':
      return `${entry.body.purpose.replaceAll('-', ' ')} put into the vault`
    case 'secret.assessed':
      return 'A secret judged anew'
    case 'secret.shown':
      return `A secret shown: ${entry.body.why}`
    case 'secrets.erased':
      return `${entry.body.kept?.length ? `${entry.body.refs.length} secrets erased, ${entry.body.kept.length} kept` : 'All secrets erased'}${entry.body.because === 'custody' ? ', as was agreed' : ''}${entry.body.why ? `: ${entry.body.why}` : ''}${entry.body.key ? `; the key destroyed had the SHA-256 ${entry.body.key.slice(0, 16)}…` : ''}`
    case 'copies.erased':
      return `${entry.body.refs.length} ${entry.body.refs.length === 1 ? 'secret' : 'secrets'} erased that this visit began with: they were erased where they came from`
    case 'pack.made':
      return 'Pack made'
    case 'pack.given':
      return `Pack given, ${entry.body.how}`
    case 'signature.given':
      return `Signed by ${entry.body.name}, ${entry.body.who}`
    case 'sealed':
      return `Sealed with key ${entry.body.key}`
  }
}

/** The logbook, newest line first. */
export function LogbookSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const entries = useVisit((state) => state.entries)
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  return (
    <Sheet
      open={open}
      onClose={onClose}
      title="Logbook"
      says="Every line, newest first. Nothing in it is ever changed."
      wide
    >
      <ol className="divide-y divide-rule" reversed start={entries.length}>
        {open &&
          entries.toReversed().map((entry) => (
            <li key={entry.id} className="grid grid-cols-[3rem_1fr] gap-x-3 py-2 sm:grid-cols-[3rem_1fr_auto]">
              <span className="exact text-soft">{entry.seq}</span>
              <span className="min-w-0 break-words">{entryWords(entry, record, catalogue)}</span>
              <span className="fine col-start-2 sm:col-start-auto">
                {entry.by.name}, {format(new Date(entry.at), 'd MMM HH:mm')}
              </span>
            </li>
          ))}
      </ol>
    </Sheet>
  )
}
