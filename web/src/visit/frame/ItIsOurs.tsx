import { asStaying } from '@pasado/core/work/addresses/staying'
import { useSession } from '../../app/session'
import { useMayWrite } from '../session/facts'
import { useVisit } from '../session/visit-state'
import { write } from '../session/write'
import { Button } from '../../ui/Button'

/** Turns something that was recorded as staying back into the unit that it was recorded as before; shown where it was one. */
export function ItIsOurs({ id }: { id: string }) {
  const wasUnit = useVisit((state) => state.record.units[id] !== undefined)
  if (!wasUnit) return null
  return (
    <Button
      kind="quiet"
      onClick={() => {
        write('thing.removed', { thing: 'stays', id })
        write('thing.restored', { thing: 'unit', id })
      }}
    >
      It is ours after all
    </Button>
  )
}

/** A lead turns a unit of the visit that is not ours into something that stays: cables, looks and measurements go on pointing at it. */
export function ItStays({ id }: { id: string }) {
  const record = useVisit((state) => state.record)
  const isLead = useSession((state) => state.me?.role === 'lead')
  const mayWrite = useMayWrite()
  const unit = record.units[id]
  if (!mayWrite || !isLead || !unit || !(unit.facts.used || unit.facts.stayed)) return null
  return (
    <Button
      kind="quiet"
      className="-ml-2"
      onClick={() => {
        write('stays.set', { id, set: asStaying(record, unit) })
        write('thing.removed', { thing: 'unit', id })
      }}
    >
      It is not ours: it stays as it is
    </Button>
  )
}
