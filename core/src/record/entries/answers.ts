import { z } from 'zod'
import { choiceAnswers, choiceNames, custodies, secretPurposes } from '../answers'
import { attributionOf, type Author } from '../attribution'
import { textLine } from '../fields'
import { answerKey, choiceKey, custodyKey } from '../keys'
import { ruleKey } from '../record'
import { entryKind, withoutRow } from './kind'

const rule = z.string().regex(/^[a-z0-9-]{3,60}$/)
const subject = z.string().max(80)
/** Which of several things that the rule says of the subject is meant, by the name it says it under. */
const named = textLine(160)
const reason = textLine(600)

interface Granted {
  rule: string
  subject?: string | undefined
  named?: string | undefined
  reason: string
  until?: string | undefined
}

/** What is kept of a waiver or an acknowledgement, under the rule and what it is about. */
function granted(line: { seq: number; at: string; by: Author; body: Granted }) {
  const { rule, subject, named, reason, until } = line.body
  const kept = { ...attributionOf(line), rule, subject: subject ?? null, reason }
  return { [ruleKey(rule, subject, named)]: until === undefined ? kept : { ...kept, until } }
}

const about = ({ rule, subject, named }: Omit<Granted, 'reason'>) => ({
  rule,
  ...(subject ? { subject } : {}),
  ...(named ? { named } : {})
})

/** What was answered, and what was let pass. */
export const answerKinds = {
  'choice.answered': entryKind({
    body: z
      .strictObject({ choice: z.enum(choiceNames), answer: z.string().max(40) })
      .refine((body) => choiceAnswers[body.choice].includes(body.answer), {
        path: ['answer'],
        message: 'is not an answer to this choice'
      }),
    by: 'anybody',
    refersTo: {},
    tells: ({ choice, answer }) => [{ key: choiceKey(choice), value: answer }],
    apply: (record, line) => ({
      choices: { ...record.choices, [line.body.choice]: { ...attributionOf(line), answer: line.body.answer } }
    }),
    inverse: ({ choice }, { choices }) => {
      const before = choices[choice]
      return before ? { kind: 'choice.answered', body: { choice, answer: before.answer } } : null
    },
    describe: ({ choice, answer }) => `Choice ${choice}: ${answer}`
  }),
  /** Who keeps the secrets; where the company keeps some, which and until when. */
  'custody.answered': entryKind({
    body: z.strictObject({
      custody: z.enum(custodies),
      keeps: z.array(z.enum(secretPurposes)).min(1, 'must name at least one kind of secret').max(10).optional(),
      until: z.iso.date().optional()
    }),
    by: 'anybody',
    refersTo: {},
    tells: (body) => [{ key: custodyKey, value: body }],
    apply: (_, line) => ({ custody: { ...attributionOf(line), ...line.body } }),
    inverse: null,
    describe: ({ custody, keeps, until }) => {
      const kept = keeps ? `: ${keeps.join(', ').replaceAll('-', ' ')}` : ''
      return `Custody: ${custody.replaceAll('-', ' ')}${kept}${until ? ` until ${until}` : ''}`
    }
  }),
  'rule.answered': entryKind({
    body: z.strictObject({
      rule,
      subject: subject.optional(),
      answer: z.enum(['yes', 'no']),
      note: textLine(300).optional()
    }),
    by: 'anybody',
    refersTo: { rule: 'rule', subject: 'subject' },
    tells: ({ rule, subject, answer }) => [{ key: answerKey(ruleKey(rule, subject)), value: answer }],
    apply: (record, line) => {
      const { rule, subject, answer, note } = line.body
      const kept = { ...attributionOf(line), answer, ...(note === undefined ? {} : { note }) }
      return { answers: { ...record.answers, [ruleKey(rule, subject)]: kept } }
    },
    inverse: (body, { answers }) => {
      const before = answers[ruleKey(body.rule, body.subject)]
      return before ? { kind: 'rule.answered', body: { ...about(body), answer: before.answer } } : null
    },
    describe: ({ rule, answer }) => `${rule} answered ${answer}`
  }),
  'rule.acknowledged': entryKind({
    body: z.strictObject({ rule, subject: subject.optional(), named: named.optional(), reason }),
    by: 'anybody',
    refersTo: { rule: 'rule', subject: 'subject' },
    apply: (record, line) => ({ acknowledged: { ...record.acknowledged, ...granted(line) } }),
    inverse: null,
    describe: ({ rule, reason }) => `${rule} acknowledged: ${reason}`
  }),
  'waiver.granted': entryKind({
    body: z.strictObject({
      rule,
      subject: subject.optional(),
      named: named.optional(),
      reason,
      /** Until when it is to be put right; left out: for good. */
      until: z.iso.date().optional()
    }),
    by: 'lead',
    refersTo: { rule: 'rule', subject: 'subject' },
    // By the author's own day: one that has passed would be a waiver of nothing.
    problem: ({ until }, { at }) =>
      until !== undefined && until < at.slice(0, 10)
        ? { field: ['until'], message: 'is a day that has passed; choose the day of today or a later one' }
        : null,
    apply: (record, line) => ({ waivers: { ...record.waivers, ...granted(line) } }),
    inverse: (body) => ({ kind: 'waiver.withdrawn', body: about(body) }),
    describe: ({ rule, until, reason }) => `${rule} waived${until ? ` until ${until}` : ''}: ${reason}`
  }),
  'waiver.withdrawn': entryKind({
    body: z.strictObject({ rule, subject: subject.optional(), named: named.optional() }),
    by: 'lead',
    refersTo: { rule: 'rule', subject: 'subject' },
    apply: (record, { body }) => ({
      waivers: withoutRow(record.waivers, ruleKey(body.rule, body.subject, body.named))
    }),
    inverse: null,
    describe: ({ rule }) => `Waiver of ${rule} withdrawn`
  })
}
