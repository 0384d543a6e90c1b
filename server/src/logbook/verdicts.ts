import { deflateRawSync, inflateRawSync } from 'node:zlib'
import { canonicalJson, sha256Hex } from '@pasado/core/values/canonical'
import { ruleKey } from '@pasado/core/record/record'
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
  return today.flatMap((finding): Finding[] => {
    const then = listed.get(ruleKey(finding.rule, finding.subject?.id))
    if (!then) return []
    const level = then.level as Finding['level']
    if (then.outcome === finding.outcome) return [{ ...finding, level }]
    return [
      {
        ...finding,
        level,
        outcome: then.outcome as Finding['outcome'],
        evidence: 'So it came out when the visit was sealed; in which words was not kept.',
        mend: '',
        granted: null
      }
    ]
  })
}
