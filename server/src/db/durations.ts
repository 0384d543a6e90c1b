import { rows, type Connection } from './pool'

/** Of so many newest waits of a kind the figures are made. */
const NEWEST = 200

/** What past waits of some kinds took: how many, the least, the median and the ninth of ten, in minutes. */
export async function pastDurations(
  db: Connection,
  kinds: readonly string[]
): Promise<{ of: string; count: number; least: number; usual: number; most: number }[]> {
  if (kinds.length === 0) return []
  const newestOf = `(SELECT of_what, minutes FROM durations WHERE of_what = ? ORDER BY ended_at DESC LIMIT ${NEWEST})`
  const found = await rows<{ of_what: string; minutes: number }>(db, kinds.map(() => newestOf).join(' UNION ALL '), [
    ...kinds
  ])
  const byKind = new Map<string, number[]>()
  for (const { of_what, minutes } of found) byKind.set(of_what, [...(byKind.get(of_what) ?? []), minutes])
  return [...byKind].map(([of, list]) => {
    const sorted = list.sort((a, b) => a - b)
    const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!
    return { of, count: sorted.length, least: sorted[0]!, usual: at(0.5), most: at(0.9) }
  })
}
