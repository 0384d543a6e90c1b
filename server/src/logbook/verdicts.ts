import { deflateRawSync, inflateRawSync } from 'node:zlib'
import { canonicalJson, sha256Hex } from '@pasado/core/values/canonical'
import { ruleKey } from '@pasado/core/record/record'
import { allRules, ruleName, ruleOf } from '@pasado/core/rules/all'
import type { Finding } from '@pasado/core/rules/evaluate'
import type { Connection } from '../db/pool'
import { insertVerdicts, listedFindings, readVerdicts, type KeptBy } from '../db/sealed-verdicts'

/** Keeps what the rules said of a visit when it was sealed, for good. */
export async function keepVerdicts(
  db: Connection,
  visit: string,
  findings: readonly Finding[],
  by: KeptBy,
  at: Date
): Promise<void> {
  await insertVerdicts(db, visit, { ...packedVerdicts(findings), by, at })
}

/** Verdicts as they are kept: their canonical JSON, deflated, and its digest. */
export function packedVerdicts(findings: readonly Finding[]): { digest: string; packed: Buffer } {
  const text = canonicalJson(findings)
  return { digest: sha256Hex(text), packed: deflateRawSync(text) }
}

/** What the rules said of a visit when it was sealed; null where it was not kept. */
export async function keptVerdicts(db: Connection, visit: string): Promise<{ by: KeptBy; findings: Finding[] } | null> {
  const kept = await readVerdicts(db, visit)
  return kept && { by: kept.by, findings: JSON.parse(inflateRawSync(kept.packed).toString('utf8')) as Finding[] }
}

/**
 * What was said of a visit that was sealed before its verdicts were kept: outcome and level as they were listed, and the sentences
 * of today's rules where these come out alike. Where they do not, the outcome of then stands and says so.
 */
export async function verdictsOfThen(db: Connection, visit: string, today: readonly Finding[]): Promise<Finding[]> {
  const listed = new Map(
    (await listedFindings(db, visit)).map((finding) => [ruleKey(finding.rule, finding.subject || null), finding])
  )
  if (listed.size === 0) return [...today]
  const now = new Map(today.map((finding) => [ruleKey(finding.rule, finding.subject?.id), finding]))
  const order = new Map(allRules.map(({ id }, index) => [id, index]))
  return [...listed.values()]
    .map((then) => saidThen(then, now.get(ruleKey(then.rule, then.subject || null))))
    .sort((a, b) => (order.get(a.rule) ?? order.size) - (order.get(b.rule) ?? order.size))
}

/** A verdict as it was listed, with what today's rules say of the same where they say anything. */
function saidThen(
  { rule, subject, outcome, level }: Awaited<ReturnType<typeof listedFindings>>[number],
  now: Finding | undefined
): Finding {
  const of = { outcome: outcome as Finding['outcome'], level: level as Finding['level'] }
  if (now?.outcome === outcome) return { ...now, ...of }
  const known = ruleOf(rule)
  const about = now ?? {
    rule,
    name: ruleName(rule),
    stage: known?.stage ?? 'signoff',
    says: known?.statement ?? '',
    asks: known?.asks ?? null,
    subject: subject ? { id: subject, name: 'what this was about' } : null,
    place: null
  }
  const evidence = 'So it came out when the visit was sealed; in which words was not kept.'
  return { ...about, ...of, evidence, mend: '', granted: null }
}
