import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { allRules } from '@pasado/core/rules/all'
import type { Finding } from '@pasado/core/rules/finding'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { stages, type Stage } from '@pasado/core/record/stages'
import { allCases } from './all-cases'

/*
 * What the rules say of every case, word by word, as it is shown, waived by and printed: fixtures/said/STAGE.md.
 * A change to a sentence shows in the difference, and is accepted with `vitest run --project core core/test/said.test.ts -u`.
 */
const standardOfToday = nextDraft(firstStandard)

/** One finding in a few lines, with all that a person or a waiver goes by. */
function inLines({ outcome, subject, evidence, mend, place, code, figures = [], level, ...rest }: Finding): string {
  const beside = [
    subject && `of ${subject.name}`,
    mend && `mend: ${mend}`,
    place && `at ${place.stage}, ${place.kind} ${place.id.slice(0, 8)}, ${place.field || 'no field'}`,
    code && `case: ${code}`,
    figures.length > 0 &&
      `by ${figures.map(({ name, value, better }) => `${name} ${Number(value.toPrecision(4))}, better ${better}`).join('; ')}`,
    rest.wasProven && 'was proven',
    rest.lapsed && `lapsed: ${rest.lapsed}`,
    rest.granted && `${rest.granted.kind} by ${rest.granted.by}: ${rest.granted.reason}`,
    rest.byWordOf && `by word of ${rest.byWordOf.join(', ')}`,
    rest.unordered && `${rest.unordered.length} in no order`,
    rest.recordedSince && `${rest.recordedSince.length} recorded since`
  ]
  return [
    `- **${outcome}** (${level}) ${evidence}`,
    ...beside.filter(Boolean).map((line) => `  - ${String(line)}`)
  ].join('\n')
}

const stageOf = new Map(allRules.map(({ id, stage }) => [id, stage]))

/** What the rules of a stage say of each of their cases. */
const saidUnder = (stage: Stage): string[] =>
  allCases
    .filter(([rule]) => stageOf.get(rule) === stage)
    .map(([rule, what, from, change]) => {
      const log = from()
      change(log)
      return `## ${rule}: ${what}\n${log.judge(rule, standardOfToday).map(inLines).join('\n')}`
    })
const snapshotOf = (stage: Stage): string => join(import.meta.dirname, `fixtures/said/${stage}.md`)

describe('what is said', () => {
  it.each(stages)('under %s, in each case', async (stage) => {
    await expect(`# ${stage}\n\n${saidUnder(stage).join('\n\n')}\n`).toMatchFileSnapshot(snapshotOf(stage))
  })
})
