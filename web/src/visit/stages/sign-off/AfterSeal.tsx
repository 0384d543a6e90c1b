import { format } from 'date-fns'
import { useReading } from '../../../app/read'
import { ask } from '../../../app/api'
import { Notice } from '../../../ui/Notice'

/** Lines that came when the visit was sealed already; nothing where none did. */
export function AfterSeal({ visit }: { visit: string }) {
  const { value } = useReading(['after the seal', visit], () =>
    ask('GET /visits/:id/after-seal', { params: { id: visit } }).then(({ lines }) => lines)
  )
  if (!value?.length) return null
  return (
    <Notice as="section" edge="edge" aria-label="Came after the seal" className="mt-4">
      <h3 className="text-base">Came after the seal: no part of the record</h3>
      <ul className="mt-1">
        {value.map(({ id, by, at, received, says }) => (
          <li key={id}>
            {says}{' '}
            <span className="fine">
              written by {by} {format(new Date(at), 'd MMM, HH:mm')}, came {format(new Date(received), 'd MMM, HH:mm')}
            </span>
          </li>
        ))}
      </ul>
    </Notice>
  )
}
