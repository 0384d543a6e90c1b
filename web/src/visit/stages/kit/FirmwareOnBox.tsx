import { knownOrder, orderUnknown, releaseOf } from '@pasado/core/catalogue/firmware-order'
import { updateWork } from '@pasado/core/catalogue/firmware-work'
import type { Model } from '@pasado/core/catalogue/model'
import type { Unit } from '@pasado/core/record/record'
import { TextFact } from '../../fields/FactField'
import { Notice } from '../../../ui/Notice'

/** The firmware as it came out of the box, and what has to be installed on the way to the approved one. */
export function FirmwareOnBox({ unit, model }: { unit: Unit; model: Model }) {
  if (model.firmware.releases.length === 0) return <p className="fine">It has no firmware to update.</p>
  return (
    <section aria-label="Firmware">
      <TextFact
        kind="unit"
        id={unit.id}
        field="firmwareBefore"
        label="Firmware as it came"
        exact
        hint="On the box or the label; else as its own page tells it."
      />
      {unit.facts.firmwareBefore !== undefined && <Work model={model} current={unit.facts.firmwareBefore} />}
    </section>
  )
}

function Work({ model, current }: { model: Model; current: string }) {
  const { path, reachesMinimum, usualMin, mostMin } = updateWork(model, current)
  const withdrawn = releaseOf(model.firmware.releases, current)?.withdrawn ?? false
  const isUnclear = knownOrder(current, model.firmware.minimum, model.firmware.releases) === 'unknown'
  const withoutPath = () => {
    const { minimum } = model.firmware
    if (isUnclear) return `${orderUnknown(current, minimum)}: look for its date of release, and ask the lead.`
    if (reachesMinimum && !withdrawn) return 'Nothing to install: approved as it is.'
    return `Nothing leads on from here. Approved is ${minimum} and above: ask the lead.`
  }
  return (
    <Notice edge="edge" small className="mt-2" aria-live="polite">
      {path.length === 0 ? (
        <p>{withoutPath()}</p>
      ) : (
        <p>
          Install <span className="exact">{[current, ...path].join(' → ')}</span>:{' '}
          {path.length === 1 ? 'one update' : `${path.length} updates`}
          {usualMin !== null && mostMin !== null && (
            <>
              , usually {usualMin} min, at most {mostMin} min
            </>
          )}
          .{!reachesMinimum && <b> That stays below the approved {model.firmware.minimum}.</b>}
        </p>
      )}
      {withdrawn && <p className="font-bold">{current} was withdrawn; it must not stay.</p>}
      <p className="fine mt-1">Calculated from the catalogue’s releases.</p>
    </Notice>
  )
}
