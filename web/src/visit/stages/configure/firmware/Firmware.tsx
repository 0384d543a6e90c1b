import { useMemo } from 'react'
import { format } from 'date-fns'
import { updateOrder } from '@pasado/core/work/configure/firmware-order'
import { knownOrder, newestRelease } from '@pasado/core/catalogue/firmware-order'
import { modelOf, type Model } from '@pasado/core/catalogue/model'
import { standing, unitName } from '@pasado/core/record/record'
import { updatesInOrder } from '@pasado/core/agenda/in-order'
import { useStarts } from '../../../frame/use-agenda'
import { AnsweredOnce } from '../../../frame/AnsweredOnce'
import { ChoiceFact, TextFact } from '../../../fields/FactField'
import { useVisit } from '../../../session/visit-state'
import { List } from '../../../../ui/List'

/** Versions before and after on every unit, against what the catalogue approves. */
export function Firmware() {
  const catalogue = useVisit((state) => state.catalogue)
  const units = standing(useVisit((state) => state.record.units))
    .map((unit) => ({ unit, model: modelOf(unit, catalogue) }))
    .filter(({ model }) => model && (model.firmware.releases.length > 0 || model.updates !== 'none'))
  if (units.length === 0) return <p>No unit with firmware yet: add units under Kit.</p>
  return (
    <div>
      <Order />
      <List framed>
        {units.map(({ unit, model }) => {
          const field = { kind: 'unit', id: unit.id } as const
          const newest = newestRelease(model!.firmware.releases)
          const hasFirmware = model!.firmware.releases.length > 0
          const withdrawn = model!.firmware.releases
            .filter((release) => release.withdrawn)
            .map(({ version }) => version)
          return (
            <li
              key={unit.id}
              className="grid items-start gap-x-5 gap-y-2 py-4 md:grid-cols-[1.2fr_1fr_1fr_1.4fr]"
              aria-label={`Firmware of ${unitName(unit)}`}
            >
              <div>
                <h3>{unitName(unit)}</h3>
                <p className="fine">
                  {model!.maker} {model!.name}. Approved from <span className="exact">{model!.firmware.minimum}</span>
                  {newest && (
                    <>
                      , newest <span className="exact">{newest.version}</span>
                    </>
                  )}
                  {withdrawn.length > 0 && (
                    <>
                      , withdrawn <span className="exact">{withdrawn.join(', ')}</span>
                    </>
                  )}
                  .
                  {unit.meta.firmwareAfter && (
                    <> Recorded {format(new Date(unit.meta.firmwareAfter.at), 'd MMM, HH:mm')}.</>
                  )}
                </p>
              </div>
              {hasFirmware && <TextFact {...field} field="firmwareBefore" label="Before" exact />}
              {hasFirmware && (
                <TextFact
                  {...field}
                  field="firmwareAfter"
                  label="After"
                  exact
                  suggest={(typed) =>
                    typed === '' && newest && couldBe(newest.version, unit.facts.firmwareBefore, model!)
                      ? { label: `It is ${newest.version}`, value: newest.version }
                      : null
                  }
                />
              )}
              {model!.updates !== 'none' && (
                <AnsweredOnce unit={unit} differs={unit.facts.updates !== undefined}>
                  <ChoiceFact
                    {...field}
                    field="updates"
                    label="Updates"
                    options={[
                      { value: 'automatic', label: 'automatic' },
                      { value: 'managed', label: 'managed by us' }
                    ]}
                  />
                </AnsweredOnce>
              )}
            </li>
          )
        })}
      </List>
    </div>
  )
}

/** Whether a release may be what a unit runs after the visit: never one that is older than what it came with. */
function couldBe(release: string, before: string | undefined, { firmware }: Model): boolean {
  return before === undefined || ['same', 'newer'].includes(knownOrder(release, before, firmware.releases))
}

/** Which unit is updated first, so that none is cut off in the middle of an install, and how long it all takes. */
function Order() {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const start = useStarts()
  const { steps: listed, besideMin, afterMin } = useMemo(() => updateOrder(record, catalogue), [record, catalogue])
  const steps = updatesInOrder(listed, start)
  if (steps.length === 0) return null
  return (
    <section aria-label="Order of updating" className="mb-4">
      <p>
        The farthest from the line first: what others are reached through starts again only when they are done. Usually{' '}
        <b>{besideMin} min</b> with those of a round side by side
        {afterMin > besideMin ? `, ${afterMin} min one after another` : ''}.
      </p>
      <List as="ol" framed className="mt-2">
        {steps.map(({ unit, name, path, usualMin, mostMin, cutsOff, round }) => (
          <li key={unit.id} className="flex flex-wrap items-baseline gap-x-4 gap-y-0.5 py-2">
            <span className="fine w-20 shrink-0">round {round + 1}</span>
            <b>{name}</b>
            <span className="exact">
              {[unit.facts.firmwareAfter ?? unit.facts.firmwareBefore, ...path].join(' → ')}
            </span>
            <span className="fine">
              {usualMin === null ? 'time not in the catalogue' : `usually ${usualMin} min, at most ${mostMin} min`}
              {cutsOff.length > 0 ? `; ${cutsOff.join(', ')} cut off while it starts again` : ''}
            </span>
          </li>
        ))}
      </List>
    </section>
  )
}
