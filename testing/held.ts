import { chainProblem } from '@pasado/core/record/chain'
import { entriesAfter } from '../server/src/archive/archived'
import { row, rows } from '../server/src/db/pool'
import { rebuildProjections } from '../server/src/logbook/rebuild'
import type { Services } from '../server/src/services'
import type { Acknowledged } from './burst'
import { allCounted } from './counted'

/** What lists are made of. */
const projected = [
  'homes',
  'units',
  'networks',
  'findings',
  'home_terms',
  'durations',
  'checks',
  'waivers_due',
  'home_models',
  'model_versions'
]
const JUDGED_MS = 60_000

/**
 * What is not as it was acknowledged: an entry that is not there or twice, a chain with a gap, a head that is not its end, a list that is
 * not what a rebuild makes of the logbook.
 */
export async function whatWasLost(
  services: Services,
  acknowledged: readonly Acknowledged[],
  visits: readonly string[]
): Promise<string[]> {
  const { db } = services
  const problems: string[] = []
  for (const visit of visits) {
    const entries = await entriesAfter(db, visit, 0)
    const gap = chainProblem(entries)
    if (gap) problems.push(`${visit}: ${gap}`)
    const head = await row<{ seq: number; hash: string }>(
      db,
      'SELECT last_seq AS seq, last_hash AS hash FROM visits WHERE id = ?',
      [visit]
    )
    const last = entries.at(-1)
    if (head?.seq !== last?.seq || head?.hash !== last?.hash) problems.push(`${visit}: its head is not its last line`)
    const stored = new Map(entries.map((entry) => [entry.id, entry]))
    if (stored.size !== entries.length) problems.push(`${visit}: an entry stands in it twice`)
    for (const { id, seq, hash } of acknowledged.filter((receipt) => receipt.visit === visit)) {
      const entry = stored.get(id)
      if (entry?.seq !== seq || entry.hash !== hash)
        problems.push(`${visit}: line ${seq} was acknowledged and is not there`)
    }
  }
  const until = Date.now() + JUDGED_MS
  while ((await row(db, 'SELECT 1 FROM visits WHERE to_judge LIMIT 1')) && Date.now() < until) {
    await services.followUp.sweep()
    await services.followUp.caughtUp(5_000)
  }
  await allCounted(db)
  const before = await whatIsListed(services)
  await rebuildProjections(services.logbook)
  const after = await whatIsListed(services)
  for (const [table, lines] of before)
    if (lines !== after.get(table)) problems.push(`${table} is not what a rebuild makes`)
  return problems
}

/** Everything that is listed of a company's visits, by table. */
export async function whatIsListed({ db }: Pick<Services, 'db'>): Promise<Map<string, string>> {
  const tables = new Map<string, string>()
  for (const table of projected)
    tables.set(
      table,
      (await rows(db, `SELECT * FROM ${table}${table === 'model_versions' ? ' WHERE units > 0' : ''}`))
        .map((line) => JSON.stringify(line))
        .sort()
        .join('\n')
    )
  const summaries = await rows(db, 'SELECT id, summary, to_judge FROM visits ORDER BY id')
  return tables.set('visits', JSON.stringify(summaries))
}
