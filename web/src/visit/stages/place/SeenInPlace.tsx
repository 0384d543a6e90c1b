import { ruleKey, unitName, type Unit } from '@pasado/core/record/record'
import { placeQuestionOf, placeQuestions, type PlaceQuestion } from '@pasado/core/rules/stages/seen-in-place'
import { Chips } from '../../../ui/Chips'
import { Mark } from '../../../ui/Mark'
import { Button } from '../../../ui/Button'
import { List } from '../../../ui/List'
import { useMayWrite } from '../../session/facts'
import { placeKey } from '../../session/place'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'

const isPlaceQuestion = (rule: string): rule is PlaceQuestion => Object.hasOwn(placeQuestions, rule)

/** What is seen of a unit at its place that no drawing shows: one press says that all of it is so. */
export function SeenInPlace({ unit }: { unit: Unit }) {
  const findings = useVisit((state) => state.findings)
  const answers = useVisit((state) => state.record.answers)
  const mayWrite = useMayWrite()
  const asked = findings.flatMap(({ rule, subject, outcome, place, evidence }) => {
    if (subject?.id !== unit.id || !isPlaceQuestion(rule)) return []
    const given = answers[ruleKey(rule, unit.id)]
    // What was said stays to be seen, and to be said otherwise, unless the plan tells it.
    return place?.kind === 'answer' || (given && (unit.facts.x === undefined || rule === 'place-clear'))
      ? [{ rule, outcome, evidence, given }]
      : []
  })
  if (asked.length === 0) return null
  const open = asked.filter(({ outcome }) => outcome === 'unproven')
  const say = (rule: PlaceQuestion, answer: 'yes' | 'no') => write('rule.answered', { rule, subject: unit.id, answer })
  const name = unitName(unit)
  return (
    <details className="group md:col-span-4" open={open.length > 0} aria-label={`Seen of ${name}`}>
      <summary className="flex min-h-11 cursor-pointer flex-wrap items-center gap-x-4 gap-y-2">
        <span className="grow">
          <b>Seen at its place</b>{' '}
          <span className="fine">
            {open.length ? `${asked.length - open.length} of ${asked.length} said` : 'all said'}
          </span>
        </span>
        {mayWrite && open.length > 0 && (
          <Button
            aria-label={`All of it is so: ${name}`}
            onClick={(event) => {
              event.preventDefault()
              for (const { rule } of open) say(rule, 'yes')
            }}
          >
            All of it is so
          </Button>
        )}
      </summary>
      <List framed className="mt-2">
        {asked.map(({ rule, outcome, given }) => (
          <li
            key={rule}
            data-place={placeKey({ kind: 'answer', id: rule, field: unit.id })}
            className="flex flex-wrap items-center gap-x-4 gap-y-2 py-2"
          >
            <Mark outcome={outcome} />
            <p className="grow basis-64">{placeQuestionOf(rule, unit).asks}</p>
            <Chips
              label={`${name}: ${placeQuestionOf(rule, unit).asks}`}
              value={outcome === 'unproven' ? undefined : (given?.answer as 'yes' | undefined)}
              disabled={!mayWrite}
              options={[
                { value: 'yes', label: 'Yes' },
                { value: 'no', label: 'No' }
              ]}
              onChoose={(answer) => say(rule, answer)}
            />
          </li>
        ))}
      </List>
    </details>
  )
}
