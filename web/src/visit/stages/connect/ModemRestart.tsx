import { v7 as uuidv7 } from 'uuid'
import { modelOf } from '@pasado/core/catalogue/model'
import { clockOfRestart } from '@pasado/core/work/units/look-moves'
import type { Equipment } from '@pasado/core/record/equipment'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'

const steps = [
  'Switch it off. A backup battery comes out.',
  'Wait until all its lights are out.',
  'The cable goes in, on both ends.',
  'Switch it on again, battery back in, and leave it alone until its lights settle.'
] as const

/** The restart of a modem or gateway once the cable is in, as a guided wait. */
export function ModemRestart({ modem }: { modem: Equipment }) {
  const mayWrite = useMayWrite()
  const waits = useVisit((state) => state.record.waits)
  const catalogue = useVisit((state) => state.catalogue)
  // The restart is a step of its method, where it has one: nobody switches it off again for that.
  const clock = clockOfRestart(modem.unit, modem.id, modelOf(modem.thing, catalogue))
  const restart = modem.thing.events.findLast(({ what }) => what === 'restarted' || what === 'powered')
  const running = Object.values(waits).find(
    (wait) => wait.unit === modem.id && wait.endedAt === null && !wait.what.startsWith('pairing window')
  )
  return (
    <section
      aria-label={`Restart of ${modem.name}`}
      data-place={`${modem.unit ? 'unit' : 'stays'}.${modem.id}.restart`}
    >
      <h3>{modem.name}: restart once the cable is in</h3>
      <ol className="mt-1 list-decimal pl-5 text-sm">
        {steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        {mayWrite && !running && (
          <Button
            onClick={() => {
              write('unit.event', { unit: modem.id, what: 'restarted' })
              write('wait.started', {
                id: uuidv7(),
                unit: modem.id,
                ...clock
              })
            }}
          >
            It is on again: wait for its lights
          </Button>
        )}
        {running ? (
          <p>It settles; its clock runs at the foot.</p>
        ) : (
          restart && (
            <p className="fine">
              Last restart recorded{' '}
              {new Date(restart.at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}.
            </p>
          )
        )}
      </div>
    </section>
  )
}
