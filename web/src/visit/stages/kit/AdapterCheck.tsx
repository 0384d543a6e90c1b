import type { Model } from '@pasado/core/catalogue/model'
import { adapterFault } from '@pasado/core/work/units/adapter'
import type { Unit } from '@pasado/core/record/record'
import { TextFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'

/** The adapter in the hand against the model's: plug, volts, amps. */
export function AdapterCheck({ unit, model }: { unit: Unit; model: Model }) {
  const mayWrite = useMayWrite()
  if (!model.power)
    return (
      <p className="fine">
        {model.ports.some(({ powerInClass }) => powerInClass)
          ? 'It has no adapter: its power comes by the network cable.'
          : 'It has no adapter of its own.'}
      </p>
    )
  const { plug, volts, amps } = model.power
  const field = { kind: 'unit', id: unit.id } as const
  const { adapterPlug, adapterVolts, adapterAmps } = unit.facts
  const known = adapterPlug !== undefined && adapterVolts !== undefined && adapterAmps !== undefined
  const wrong = adapterFault(model.power, unit.facts) !== null
  return (
    <section aria-label="Power adapter">
      <div className="flex flex-wrap items-baseline justify-between gap-x-3">
        <h3 className="label">Power adapter</h3>
        <p className="fine">
          the model wants {plug}, {volts} V, {amps} A
        </p>
      </div>
      {!known && mayWrite && (
        <Button
          className="mt-1"
          onClick={() =>
            write('unit.set', {
              id: unit.id,
              set: { adapterPlug: plug, adapterVolts: volts, adapterAmps: amps },
              origin: 'label'
            })
          }
        >
          It says just that: {volts} V, {amps} A
        </Button>
      )}
      <div className="mt-2 grid grid-cols-[2fr_1fr_1fr] gap-3">
        <TextFact {...field} field="adapterPlug" label="Plug" />
        <TextFact {...field} field="adapterVolts" label="Volts" type="number" unit="V" />
        <TextFact {...field} field="adapterAmps" label="Amps" type="number" unit="A" />
      </div>
      {wrong && (
        <p role="alert" className="mt-2 bg-inv p-2 font-bold text-oninv">
          Not this unit’s adapter. Do not plug it in: a wrong voltage or plug can destroy the unit, or hurt you.
        </p>
      )}
    </section>
  )
}
