import type { Change } from '../work/configure/apply-order'
import type { UpdateStep } from '../work/configure/firmware-order'

type Start = Readonly<Record<string, number>>

/** When a change begins in the plan, minutes; undefined where the plan has none of it. */
const begins = ({ id, kind, unit }: Change, start: Start): number | undefined =>
  start[`apply:${id}`] ?? (kind === 'firmware' ? start[`update:${unit}`] : undefined)

/** Which begins first; what the plan does not have comes last, as it was. */
function compare(a: number | undefined, b: number | undefined): number {
  const [first, other] = [a ?? Number.MAX_VALUE, b ?? Number.MAX_VALUE]
  return first - other
}

/**
 * The changes as the plan has them: what is applied stands first, then what is to be applied as it begins; where the plan has none of
 * them, as they are listed.
 */
export function changesInOrder<T extends Change>(changes: readonly T[], start: Start): T[] {
  const open = changes.filter(({ applied }) => !applied)
  const planned = [...open].sort((a, b) => (begins(a, start) ?? Infinity) - (begins(b, start) ?? Infinity))
  return [...changes.filter(({ applied }) => applied), ...planned]
}

/** The updates as the plan has them, inside each round. */
export const updatesInOrder = (steps: readonly UpdateStep[], start: Start): UpdateStep[] => {
  const at = ({ unit }: UpdateStep) => start[`update:${unit.id}`]
  return [...steps].sort((a, b) => a.round - b.round || compare(at(a), at(b)))
}
