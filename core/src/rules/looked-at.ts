import type { Catalogue } from '../catalogue/model'
import { fold, nothingFolded, type Folded } from '../history/fold'
import { historyChanges, isAsItWas, type HistoryChanges } from '../history/history-through'
import type { Reads } from '../record/reads'
import { partsOf } from '../record/keys'
import { changedParts, factName } from '../record/read-through'
import type { Placed } from '../record/entry'
import type { Standard } from '../policy/standard'
import { judge } from './judged'

/** What a line changed when it came. */
interface Step {
  seq: number
  parts: ReadonlySet<string>
  changes: HistoryChanges
}

/** A logbook folded, with what each of its lines changed. */
interface Stepped {
  folded: Folded
  steps: Step[]
  /** The lines that rules look at, as far as it was asked. */
  lookedAt: Map<string, number[] | null>
}

const stepped = new WeakMap<readonly Placed[], Stepped>()

/** Of one logbook it is told once what its lines changed: many findings are asked about. */
function stepsOf(entries: readonly Placed[]): Stepped {
  const known = stepped.get(entries)
  if (known?.steps.length === entries.length) return known
  let folded = nothingFolded
  const steps = entries.map((entry): Step => {
    const before = folded
    folded = fold([entry], before)
    const changes = historyChanges(before.history, folded.history)
    // Who sets a fact to what it was says it again.
    const again = [...changes.writes]
      .map(partsOf)
      .flatMap((of) => (of.kind === 'unit' ? factName(of.id, of.field) : []))
    const parts = new Set([...changedParts(before.record, folded.record), ...again])
    return { seq: entry.seq, parts, changes }
  })
  const found = { folded, steps, lookedAt: new Map<string, number[] | null>() }
  stepped.set(entries, found)
  return found
}

/**
 * The lines of a logbook that changed something that a rule looks at when it judges the whole: those that may have a say in what it says.
 * A line on which one of these hangs without its being looked at is not among them.
 * @param alone a standard of that rule only
 * @returns the numbers of the lines, in order; null where it cannot be told what the rule looks at
 */
export function linesLookedAt(
  entries: readonly Placed[],
  rule: string,
  catalogue: Catalogue,
  alone: Standard
): number[] | null {
  const { folded, steps, lookedAt } = stepsOf(entries)
  const key = `${rule} ${alone.id} ${alone.version}`
  const known = lookedAt.get(key)
  if (known !== undefined) return known
  const reads: Reads | undefined = judge(folded, catalogue, alone).asked?.get(rule)?.reads
  const lines =
    !reads || reads.isAll
      ? null
      : steps.filter(({ parts, changes }) => !isAsItWas(anyLine(reads), parts, changes)).map(({ seq }) => seq)
  lookedAt.set(key, lines)
  return lines
}

/** What was looked at, but for single lines: those were found by something that is looked at as well. */
const anyLine = (reads: Reads): Reads => Object.assign(Object.create(reads) as Reads, { newestLine: 0 })
