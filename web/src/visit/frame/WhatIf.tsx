import { addMinutes, format } from 'date-fns'
import { useEffect, useState } from 'react'
import type { Agenda } from '@pasado/core/agenda/planned'
import type { WhatIf, WhatIfAnswer } from '@pasado/core/agenda/what-if'
import { blocks } from '@pasado/core/rules/weigh'
import { askWhatIf } from '../../workers/what-if'
import { Field, Input } from '../../ui/Field'
import { figureWords } from './figure-words'

/** Minutes from a moment to a time of the same day, or of the next where that is past; null where none is typed. */
function minutesTo(time: string, at: number): number | null {
  const [hours, minutes] = time.split(':').map(Number)
  if (time === '' || hours === undefined || minutes === undefined) return null
  const now = new Date(at)
  const then = new Date(now.getFullYear(), now.getMonth(), now.getDate(), hours, minutes).getTime()
  // A time some hours ago is of today, and past: the ferry has left.
  return Math.round((then - at) / 60_000)
}

/** How what was asked compares with the plan as it is. */
function compared({ plan }: WhatIfAnswer, agenda: Agenda): string {
  const sooner = Math.round(agenda.likelyMin - plan.likelyMin)
  if (sooner === 0) return 'no sooner than now'
  return sooner > 0 ? `${sooner} min sooner` : `${-sooner} min later`
}

function fitWords({ fits, overMin }: WhatIfAnswer, by: string): string {
  if (fits === null) return ''
  if (fits === 'yes') return ` By ${by} it is done, nine times of ten.`
  if (fits === 'perhaps') return ` By ${by} it may be done, and may not: leave something for a second visit, or call.`
  return ` By ${by} it is not done: ${Math.ceil(overMin)} min too much.`
}

/** What if: a helper comes, the ferry goes, some of the work is left for a second visit. Nothing of it is written. */
export function WhatIfForm({
  agenda,
  at,
  without
}: {
  agenda: Agenda
  at: number
  /** The work that is left out. */
  without: readonly string[]
}) {
  const [helper, setHelper] = useState('')
  const [by, setBy] = useState('')
  const [answer, setAnswer] = useState<WhatIfAnswer | null>(null)
  const isAsked = helper !== '' || by !== '' || without.length > 0
  useEffect(() => {
    if (!isAsked) return
    const what: WhatIf = { without, helperMin: minutesTo(helper, at), byMin: minutesTo(by, at) }
    const tasks = agenda.works.map(({ id, handsOn, wait, after }) => ({ id, handsOn, wait, after }))
    askWhatIf({ tasks, what }, setAnswer)
  }, [isAsked, helper, by, without, agenda, at])
  const left = agenda.works.filter(({ id }) => without.includes(id))
  const open = left.flatMap(({ findings }) => findings.filter(blocks)).length
  return (
    <section aria-label="What if" className="mt-3 border border-rule bg-well p-3">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <Field label="A helper comes at" className="flex flex-col">
          <Input type="time" className="w-32" value={helper} onChange={(event) => setHelper(event.target.value)} />
        </Field>
        <Field label="To be through by" className="flex flex-col">
          <Input type="time" className="w-32" value={by} onChange={(event) => setBy(event.target.value)} />
        </Field>
        <p className="fine grow basis-60">
          What can be left for a second visit is ticked below. Nothing of this is written: it only tells how it would
          go.
        </p>
      </div>
      {isAsked && answer && (
        <p role="status" className="mt-2">
          Then <b>{figureWords({ agenda: answer.plan, at })}</b>, nine times of ten by{' '}
          {format(addMinutes(new Date(at), answer.plan.cautiousMin), 'HH:mm')}: {compared(answer, agenda)}.
          {fitWords(answer, by)}
          {open > 0 &&
            ` ${open === 1 ? 'One thing stays' : `${open} things stay`} between here and sign-off: a lead has to let that pass.`}
        </p>
      )}
    </section>
  )
}
