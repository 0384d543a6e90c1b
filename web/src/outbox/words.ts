import type { OutboxRow } from './rows'

/** So many lines, photos and secrets, as people say it. */
export function countWords(rows: readonly OutboxRow[]): string {
  const names = { line: ['line', 'lines'], secret: ['secret', 'secrets'], photo: ['photo', 'photos'] } as const
  const parts = (Object.keys(names) as (keyof typeof names)[]).flatMap((kind) => {
    const count = rows.filter(({ item }) => item.kind === kind).length
    return count ? [`${count} ${names[kind][count === 1 ? 0 : 1]}`] : []
  })
  return parts.length > 1 ? `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}` : (parts[0] ?? 'nothing')
}

/** Rows by the home they were written for: how many each. */
export function homesWords(rows: readonly OutboxRow[]): string {
  const counts = new Map<string, number>()
  for (const { street, visit } of rows)
    counts.set(
      street || `a visit (${visit.slice(-4)})`,
      (counts.get(street || `a visit (${visit.slice(-4)})`) ?? 0) + 1
    )
  return [...counts].map(([street, count]) => `${street} (${count})`).join(', ')
}
