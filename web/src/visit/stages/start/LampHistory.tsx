import { type Model } from '@pasado/core/catalogue/model'
import { format } from 'date-fns'
import { lookWords } from '@pasado/core/catalogue/look'
import { readLampsAt } from '@pasado/core/work/units/unit-lamps'
import type { Unit } from '@pasado/core/record/record'
import { Lens } from '../../../ui/Lens'

/** What was seen so far, as lenses over time. */
export function LampHistory({ unit, model }: { unit: Unit; model: Model }) {
  if (unit.sightings.length === 0) return null
  return (
    <section aria-label="Seen so far">
      <h3>Seen so far</h3>
      <ol className="mt-1 flex flex-wrap gap-x-5 gap-y-2">
        {unit.sightings.map((sighting, index) => {
          const reading = readLampsAt(unit, model, index)
          return (
            <li key={sighting.seq} className="flex items-center gap-2">
              <span className="flex">
                {sighting.lamps.map((look) => (
                  <Lens key={look.lamp} colour={look.colour} pattern={look.pattern} size={22} />
                ))}
              </span>
              <span className="text-sm">
                <b className="exact">{format(new Date(sighting.at), 'HH:mm')}</b>{' '}
                {reading.state?.meaning ?? sighting.lamps.map((look) => lookWords(look)).join('; ')}
              </span>
            </li>
          )
        })}
      </ol>
    </section>
  )
}
