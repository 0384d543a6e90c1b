import { catalogueOf } from '@pasado/core/catalogue/model'
import type { Placed } from '@pasado/core/record/entry'
import { fold } from '@pasado/core/history/fold'
import { reduce } from '@pasado/core/record/reduce'
import type { VisitRecord } from '@pasado/core/record/record'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { demoModels } from '@pasado/demo/models/all'
import { readVisit } from '@pasado/server/logbook/read'
import type { Services } from '@pasado/server/services'
import { medianMs, report } from './timing'

const ENTRIES = 5_000

/** A long logbook: the entries of a real visit again and again, as a long fault visit would write them. */
function longLogbook(entries: readonly Placed[]): Placed[] {
  const repeatable = entries.filter(({ kind }) =>
    ['unit.set', 'lamp.seen', 'host.set', 'network.set', 'rule.answered'].includes(kind)
  )
  const long = [...entries.slice(0, 1)]
  while (long.length < ENTRIES)
    long.push({ ...repeatable[long.length % repeatable.length]!, seq: long.length + 1, base: long.length })
  return long
}

/** The core alone: reducing, judging. Baseline: parsing the same logbook's JSON, which nobody can do without. */
export async function benchCore(services: Services, visits: readonly string[]): Promise<void> {
  let largest: { entries: Placed[]; record: VisitRecord } | null = null
  for (const id of visits) {
    const visit = await readVisit(services.logbook, id)
    if (!largest || visit.entries.length > largest.entries.length) largest = visit
  }
  const { entries, record } = largest!
  const long = longLogbook(entries)
  const text = JSON.stringify(long)
  const parsing = await medianMs(9, () => JSON.parse(text) as unknown)
  const reducing = await medianMs(9, () => reduce(long))
  report(
    `reducing ${ENTRIES} entries (baseline: JSON.parse of them, ${parsing.toFixed(1)} ms)`,
    `${reducing.toFixed(1)} ms, ${(reducing / parsing).toFixed(2)} times`
  )
  const catalogue = catalogueOf(demoModels)
  const folded = fold(entries)
  const writing = await medianMs(51, () => JSON.stringify(record))
  const judging = await medianMs(51, () => evaluate(folded, catalogue, firstStandard))
  report(
    `all rules on the largest demo visit, ${entries.length} entries (baseline: JSON.stringify of its record, ${writing.toFixed(2)} ms)`,
    `${judging.toFixed(2)} ms, ${(judging / writing).toFixed(2)} times`
  )
}
