import { ruleKey } from '@pasado/core/record/record'
import type { Stage } from '@pasado/core/record/stages'
import { Chips } from '../ui/Chips'
import { Mark } from '../ui/Mark'
import { useMayWrite } from './facts'
import { placeKey } from './place'
import { useVisit, write } from './store'

/** Rules of a stage that a person answers, with one tap each. */
export function AskedRules({ stage, only }: { stage: Stage; only?: readonly string[] }) {
  const findings = useVisit((state) => state.findings)
  const answers = useVisit((state) => state.record.answers)
  const mayWrite = useMayWrite()
  const asked = findings.filter((one) => one.stage === stage && one.asks !== null && one.place !== null || (one.stage === stage && one.asks !== null && one.outcome !== 'not-here')).filter((one) => !only || only.includes(one.rule))
  if (asked.length === 0) return null
  return (
    <ul className="divide-y divide-rule border-y border-rule">
      {asked.map((one) => {
        const given = answers[ruleKey(one.rule)]
        return (
          <li key={one.rule} data-place={placeKey({ kind: 'answer' as 'unit', id: one.rule, field: 'answer' })} className="flex flex-wrap items-center gap-x-4 gap-y-2 py-3">
            <Mark outcome={one.outcome} />
            <p className="grow basis-64">{one.asks}</p>
            <Chips label={one.asks!} value={given?.answer as 'yes' | undefined} disabled={!mayWrite} options={[{ value: 'yes', words: 'Yes' }, { value: 'no', words: 'Not yet' }]} onChoose={(answer) => write('rule.answered', { rule: one.rule, answer })} />
          </li>
        )
      })}
    </ul>
  )
}
