import { readFile } from 'node:fs/promises'
import { catalogueOf } from '@pasado/core/catalogue/model'
import { integrityProblems, readRecordFile } from '@pasado/core/documents/record-file'
import { refuse } from '@pasado/core/values/problem'
import { fold } from '@pasado/core/history/fold'
import { evaluate, type Finding } from '@pasado/core/rules/evaluate'
import { countOutcomes } from '@pasado/core/rules/weigh'
import { parseWords, unreadable, UsageError } from './words'

/** `pasado check`: every rule's outcome for the record in a file, by the standard and models that are in it. */
export async function check(words: readonly string[]): Promise<number> {
  try {
    const { rest, has } = parseWords(words, ['--json'])
    if (rest.length !== 1) throw new UsageError('say which file: pasado check FILE')
    const text = await readFile(rest[0]!, 'utf8')
    const file = readRecordFile(text)
    const problems = integrityProblems(file, text)
    if (problems.length) refuse(problems)
    const findings = evaluate(fold(file.entries), catalogueOf(file.models), file.standard)
    const held = findings.every(
      (finding) =>
        finding.level !== 'must' ||
        finding.outcome === 'holds' ||
        finding.outcome === 'waived' ||
        finding.outcome === 'not-here'
    )
    console.log(
      has.has('--json')
        ? JSON.stringify({ visit: file.visit, mustsHold: held, findings: findings.map(plainly) }, null, 2)
        : asText(findings)
    )
    return held ? 0 : 1
  } catch (error) {
    return unreadable(error)
  }
}

const plainly = ({ rule, stage, level, outcome, subject, evidence, mend, granted }: Finding) => ({
  rule,
  stage,
  level,
  outcome,
  subject,
  evidence,
  mend,
  granted
})

function asText(findings: readonly Finding[]): string {
  const lines = findings.map(
    (finding) =>
      `${finding.outcome.padEnd(9)} ${finding.level.padEnd(7)} ${finding.rule.padEnd(20)} ${finding.subject ? `${finding.subject.name}: ` : ''}${finding.evidence}`
  )
  const counts = countOutcomes(findings)
  return [
    ...lines,
    '',
    `${counts.holds} hold, ${counts.breaks} break, ${counts.unproven} unproven, ${counts.waived} waived, ${counts['not-here']} not here`
  ].join('\n')
}
