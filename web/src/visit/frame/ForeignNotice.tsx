import { format } from 'date-fns'
import { useVisit } from '../session/visit-state'

/** That what is kept of a sealed visit is not what was sealed: nothing in it is to be believed. */
export function BrokenNotice() {
  const broken = useVisit((state) => state.broken)
  if (broken === null) return null
  return (
    <p role="alert" className="bg-inv px-4 py-3 font-bold text-oninv lg:px-5">
      This record does not hold: {broken}. Something was altered where it is kept; nothing in it is proven. Tell a lead.
    </p>
  )
}

/** That a visit came as a file: who took it in, and what of it is not this company's. */
export function ForeignNotice() {
  const foreign = useVisit((state) => state.foreign)
  if (!foreign) return null
  const others = [
    foreign.key && 'its seal is by a key that is not this company’s',
    foreign.standard && 'it was checked by a standard that is not in force here',
    foreign.models.length > 0 && `${foreign.models.length} of its models are not of this catalogue`
  ].filter(Boolean)
  return (
    <p role="note" aria-label="Taken in from a file" className="border-b border-rule bg-well px-4 py-2 lg:px-5">
      <b>Taken in from a file</b> by {foreign.by}, {format(new Date(foreign.at), 'd MMM yyyy HH:mm')}
      {others.length ? `: ${others.join('; ')}` : ''}.
    </p>
  )
}
