import { format } from 'date-fns'
import { slipsTold } from '@pasado/core/documents/slip-words'
import { Notice } from '../../../ui/Notice'
import { useVisit } from '../../session/visit-state'

/** What was taken back as never so: whoever approves or signs sees it. */
export function TakenBack() {
  const told = slipsTold(
    useVisit((state) => state.record),
    (iso) => format(new Date(iso), 'd MMM HH:mm')
  )
  if (told.length === 0) return null
  return (
    <Notice as="section" aria-label="Taken back as never so" edge="edge" className="mt-4">
      <h3 className="font-bold">Taken back: it was never so</h3>
      <ul className="mt-1 list-disc pl-5">
        {told.map((line, at) => (
          <li key={at}>{line}</li>
        ))}
      </ul>
    </Notice>
  )
}
