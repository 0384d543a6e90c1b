import type { AuditInput } from './audit-schema'

type Links = NonNullable<AuditInput['links']>

/**
 * How many translations lie above each segment on its longest chain.
 * Null where the links go round in a circle, a link to itself included.
 */
export function translationDepths(segments: readonly string[], links: Links): Map<string, number> | null {
  const below = new Map<string, string[]>(segments.map((id) => [id, []]))
  const waitingFor = new Map<string, number>(segments.map((id) => [id, 0]))
  for (const { outer, inner } of links) {
    below.get(outer)?.push(inner)
    waitingFor.set(inner, (waitingFor.get(inner) ?? 0) + 1)
  }
  const depths = new Map<string, number>(segments.map((id) => [id, 0]))
  const ready = segments.filter((id) => waitingFor.get(id) === 0)
  let settled = 0
  for (let at = 0; at < ready.length; at++) {
    const outer = ready[at]!
    settled++
    for (const inner of below.get(outer)!) {
      depths.set(inner, Math.max(depths.get(inner)!, depths.get(outer)! + 1))
      const left = waitingFor.get(inner)! - 1
      waitingFor.set(inner, left)
      if (left === 0) ready.push(inner)
    }
  }
  return settled === segments.length ? depths : null
}
