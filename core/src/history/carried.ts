import { isCarriedOver } from '../record/carry-over'
import type { History } from './history'

/** The number of the last line that stands since the visit was opened: what has a later one is of this visit; 0 where nothing stands. */
export function carriedThrough({ lines }: History): number {
  const opened = lines.get(1)?.entry
  return [...lines.values()].findLast(({ entry }) => isCarriedOver(entry, opened))?.entry.seq ?? 0
}
