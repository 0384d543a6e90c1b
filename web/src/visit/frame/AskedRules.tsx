import { useState } from 'react'
import { photosOf } from '@pasado/core/record/record'
import type { Stage } from '@pasado/core/record/stages'
import { Chips } from '../../ui/Chips'
import { Mark } from '../../ui/Mark'
import { useMayWrite } from '../session/facts'
import { useAnswerNow } from '../session/answer-now'
import { Photos } from './Photos'
import { Stale } from './Stale'
import { placeKey } from '../session/place'
import { useVisit } from '../session/visit-state'
import { write } from '../session/write'
import { Button } from '../../ui/Button'
import { List } from '../../ui/List'

/** Photos that prove an answer: shown once there is one, and called up to add the first. */
function RulePhotos({ rule }: { rule: string }) {
  const some = useVisit((state) =>
    photosOf(state.record).some(({ about }) => about.thing === 'rule' && about.id === rule)
  )
  const [open, setOpen] = useState(false)
  if (!some && !open)
    return (
      <Button kind="quiet" className="order-last" aria-label={`Photo for: ${rule}`} onClick={() => setOpen(true)}>
        Photo
      </Button>
    )
  return (
    <div className="order-last basis-full">
      <Photos about={{ thing: 'rule', id: rule }} label="Proof" />
    </div>
  )
}

/** Rules of a stage that a person answers, with one tap each. */
export function AskedRules({ stage, only }: { stage: Stage; only?: readonly string[] }) {
  const findings = useVisit((state) => state.findings)
  const answerNow = useAnswerNow()
  const mayWrite = useMayWrite()
  const asked = findings
    .filter(
      (finding) =>
        (finding.stage === stage && finding.asks !== null && finding.place !== null) ||
        (finding.stage === stage && finding.asks !== null && finding.outcome !== 'not-here')
    )
    .filter((finding) => (only ? only.includes(finding.rule) : !finding.rule.startsWith('own-')))
  if (asked.length === 0) return null
  return (
    <List framed>
      {asked.map((finding) => {
        const { value, stale } = answerNow(finding.rule)
        return (
          <li
            key={finding.rule}
            data-place={placeKey({ kind: 'answer', id: finding.rule, field: 'answer' })}
            className="flex flex-wrap items-center gap-x-4 gap-y-2 py-3"
          >
            <Mark outcome={finding.outcome} />
            <p className="grow basis-64">
              {finding.asks}
              <Stale why={stale} />
            </p>
            <RulePhotos rule={finding.rule} />
            <Chips
              label={finding.asks!}
              value={value}
              disabled={!mayWrite}
              options={[
                { value: 'yes', label: 'Yes' },
                { value: 'no', label: 'Not yet' }
              ]}
              onChoose={(answer) => write('rule.answered', { rule: finding.rule, answer })}
            />
          </li>
        )
      })}
    </List>
  )
}
