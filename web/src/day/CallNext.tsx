import { callWords, type NextCall } from '@pasado/core/work/day/next-call'
import type { ListedVisit } from '@pasado/core/api/day'
import { Notice } from '../ui/Notice'

/** As the day slips: whom to call next, and what to say. */
export function CallNext({ call, visit, phone }: { call: NextCall; visit: ListedVisit; phone: string | undefined }) {
  return (
    <Notice role="status" edge="ink" className="mt-3">
      <b>
        The day slips: call {visit.customer}
        {phone === undefined ? '' : ', '}
        {phone !== undefined && (
          <a className="exact underline" href={`tel:${phone.replace(/[^+\d]/g, '')}`}>
            {phone}
          </a>
        )}
      </b>
      , {visit.street}
      {phone === undefined ? '; no number is recorded' : ''}.
      <br />“{callWords(call, visit.technicianName)}”
    </Notice>
  )
}
