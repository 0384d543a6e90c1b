import { hasSeen, linesSaying } from '../../history/history'
import { answerKey } from '../../record/keys'
import { ruleKey } from '../../record/record'
import { APPLIED_RULE, applyOrder } from '../../work/configure/apply-order'
import { restsOfApplied } from '../../work/prove/rests-of-answers'
import { askedRule, unproven, type Home, type Verdict } from '../rule'

export const addrApplied = askedRule({
  id: 'addr-applied',
  name: 'Pages applied',
  stage: 'configure',
  level: 'must',
  minutes: 4,
  needs: ['model'],
  statement: 'Every changed page was applied, and the unit restarted where its model needs it.',
  asks: 'Was every changed page applied, and each unit restarted where it needs it?',
  applies: (home) => home.units.length > 0,
  unknown: (home) => stillToApply(home),
  rests: (home) => restsOfApplied(home)
})

/** What was ticked off the list in order, or never was: somebody said no of it, and nobody who knew of that said yes to all of it since. */
function stillToApply({ record, history, catalogue }: Home): Verdict | null {
  const yesToAll = linesSaying(history, answerKey(APPLIED_RULE), 'yes')
  const start = ruleKey(APPLIED_RULE, ' ').trimEnd()
  const open = Object.entries(record.answers).find(
    ([key, { answer, seq: line }]) =>
      key.startsWith(start) && answer === 'no' && !yesToAll.some(({ seq }) => hasSeen(history, seq, line))
  )
  if (!open) return null
  const change = applyOrder(record, catalogue).find(({ id }) => ruleKey(APPLIED_RULE, id) === open[0])
  const [evidence, remedy] = change
    ? [`${change.name}, ${change.label}`, 'Apply it, and tick it there.']
    : ['a change that it does not list any more', 'Look that every page is applied, and say so once for all of them.']
  const place = { stage: 'configure', kind: 'answer', id: APPLIED_RULE, field: change ? 'order' : 'answer' } as const
  return unproven(`Not applied, as the list in order has it: ${evidence}.`, remedy, place)
}
