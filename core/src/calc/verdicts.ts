import { z } from 'zod'
import { catalogueOf, model } from '../catalogue/model'
import { conflictsOf } from '../history/conflicts'
import { fold } from '../history/fold'
import { policy } from '../policy/standard'
import type { Author } from '../record/attribution'
import { entryKinds, kindOf, type EntryKind } from '../record/entries/all'
import type { Placed } from '../record/entry'
import { evaluate } from '../rules/evaluate'
import { firstStandard } from '../rules/first-standard'
import { Refusal, problemsOf, type Problem } from '../values/problem'

const roles = ['technician', 'lead', 'office', 'server'] as const

/** A line of a logbook as an example writes it: what is left out is the usual. */
const line = z.strictObject({
  kind: z.enum(Object.keys(entryKinds) as [EntryKind, ...EntryKind[]]),
  body: z.unknown(),
  at: z.iso.datetime({ offset: true }).optional(),
  from: z.string().max(60).optional(),
  base: z.int().min(0).optional(),
  own: z.int().min(0).optional(),
  by: z.union([z.enum(roles), z.strictObject({ id: z.string().max(60), role: z.enum(roles) })]).optional()
})

/** A logbook, and what it is judged by where that is not the first standard and the models of the demo company. */
export const verdictsInput = z.strictObject({
  entries: z.array(line).min(1).max(5000),
  policy: policy.partial().optional(),
  models: z.array(model).max(500).optional(),
  now: z.iso.datetime({ offset: true }).optional()
})
export const verdictsOutput = z.strictObject({
  verdicts: z.array(z.strictObject({ rule: z.string(), subject: z.string().nullable(), outcome: z.string() })),
  conflicts: z.int()
})

const ONE_DEVICE = 'one device'
const FIRST_AT = Date.UTC(2026, 0, 5, 9)
const MINUTE = 60_000

/**
 * What the standard says of a logbook.
 * @throws Refusal where a line is not one that a logbook can hold
 */
export function verdicts(input: z.output<typeof verdictsInput>): z.output<typeof verdictsOutput> {
  const entries = placed(input.entries)
  const folded = fold(entries)
  const standard = { ...firstStandard, policy: { ...firstStandard.policy, ...input.policy } }
  const now = input.now ?? entries.map(({ at }) => at).reduce((a, b) => (Date.parse(b) > Date.parse(a) ? b : a))
  const findings = evaluate(folded, catalogueOf(input.models ?? []), standard, { now })
  return {
    verdicts: findings.map(({ rule, subject, outcome }) => ({ rule, subject: subject?.id ?? null, outcome })),
    conflicts: conflictsOf(folded.history).length
  }
}

function placed(lines: z.output<typeof verdictsInput>['entries']): Placed[] {
  const problems: Problem[] = []
  let at = FIRST_AT
  const entries = lines.map((given, index) => {
    const body = kindOf(given.kind).body.safeParse(given.body)
    if (!body.success)
      problems.push(
        ...problemsOf(body.error).map(({ path, message }) => ({ path: ['entries', index, 'body', ...path], message }))
      )
    at = given.at === undefined ? at + MINUTE : Date.parse(given.at)
    const moment = given.at ?? new Date(at).toISOString()
    return {
      id: `line ${index + 1}`,
      visit: 'visit',
      at: moment,
      from: given.from ?? ONE_DEVICE,
      base: given.base ?? index,
      ...(given.own === undefined ? {} : { own: given.own }),
      kind: given.kind,
      body: body.data,
      by: authorOf(given.by ?? 'technician'),
      seq: index + 1,
      received: moment
    } as Placed
  })
  if (problems.length) throw new Refusal(problems)
  return entries
}

function authorOf(by: Author['role'] | { id: string; role: Author['role'] }): Author {
  return typeof by === 'string' ? { id: by, name: `the ${by}`, role: by } : { ...by, name: by.id }
}
