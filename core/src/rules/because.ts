import type { Catalogue } from '../catalogue/model'
import { fold, foldOnly } from '../history/fold'
import type { Placed } from '../record/entry'
import type { Standard } from '../policy/standard'
import { allRules } from './all'
import { evaluate } from './evaluate'
import type { Finding } from './finding'
import { linesLookedAt } from './looked-at'

/** What a finding says, and of what. */
type Said = Pick<Finding, 'rule' | 'subject' | 'outcome' | 'evidence' | 'level' | 'granted' | 'lapsed'>

/** A standard of one rule. */
export function ofOneRule(rule: string, standard: Standard): Standard {
  const off = Object.fromEntries(allRules.filter(({ id }) => id !== rule).map(({ id }) => [id, 'off' as const]))
  return { ...standard, levels: { ...standard.levels, ...off }, own: standard.own?.filter(({ id }) => id === rule) }
}

/**
 * The lines that a finding rests on: with them alone the rule would say the very same, and without any one of them something else. Where
 * several would do, the newer ones are named. The opening, without which there is no visit, is named where nothing else is.
 * @param entries the logbook, in its order
 * @param now ISO; what waivers until a day are held against
 * @returns the numbers of the lines, in order; null where this program does not say so of this logbook
 */
export function becauseOf(
  entries: readonly Placed[],
  said: Said,
  catalogue: Catalogue,
  standard: Standard,
  now?: string
): number[] | null {
  const alone = ofOneRule(said.rule, standard)
  const isSaidOf = (kept: ReadonlySet<number>) =>
    evaluate(
      foldOnly(entries, (seq) => kept.has(seq)),
      catalogue,
      alone,
      now === undefined ? {} : { now }
    ).some((finding) => isSame(finding, said))
  const opening = entries[0]
  if (!opening) return null
  const lines = entries.slice(1).map(({ seq }) => seq)
  const suffices = (some: readonly number[]) => isSaidOf(new Set([opening.seq, ...some]))
  if (!suffices(lines)) return null
  // What was let pass was held against what was said then, by whatever that looked at.
  const few = said.granted || said.lapsed ? null : linesLookedAt(entries, said.rule, catalogue, alone)
  const some = few?.filter((seq) => seq !== opening.seq)
  const needed = neededOf(some && suffices(some) ? some : lines, suffices)
  return needed.length > 0 ? needed : [opening.seq]
}

/** How many verdicts rest on the lines named for them, of how many of which this program says the same of the whole logbook. */
export interface Borne {
  borne: number
  /** Those that the lines named for them do not bear out, by their place among the verdicts. */
  wrong: number[]
  /** Of how many this program says something else: its rules are not those of then. */
  saidOtherwise: number
}

/**
 * Holds verdicts against the lines that were named for them: with those alone the rules have to say the same.
 * @param entries the logbook up to the seal
 * @param because for each verdict its lines; null where none are told
 */
export function heldAgainstLines(
  entries: readonly Placed[],
  verdicts: readonly Finding[],
  because: readonly (readonly number[] | null)[],
  catalogue: Catalogue,
  standard: Standard,
  now?: string
): Borne {
  const options = now === undefined ? {} : { now }
  const whole = evaluate(fold(entries), catalogue, standard, options)
  const found: Borne = { borne: 0, wrong: [], saidOtherwise: 0 }
  for (const [at, verdict] of verdicts.entries()) {
    const lines = because[at]
    if (!lines) continue
    const alone = foldOnly(entries, (seq) => seq === entries[0]?.seq || lines.includes(seq))
    const isBorne = evaluate(alone, catalogue, ofOneRule(verdict.rule, standard), options).some((finding) =>
      isSame(finding, verdict)
    )
    if (isBorne) found.borne++
    else if (whole.some((finding) => isSame(finding, verdict))) found.wrong.push(at)
    else found.saidOtherwise++
  }
  return found
}

/** Of lines that suffice, few that do: one after another the last is found without which all after it do not, so that newer ones are kept. */
function neededOf(lines: readonly number[], suffices: (some: readonly number[]) => boolean): number[] {
  const kept: number[] = []
  let from = 0
  while (!suffices(kept)) {
    let [enough, tooFew] = [from, lines.length]
    while (tooFew - enough > 1) {
      const middle = (enough + tooFew) >> 1
      if (suffices([...kept, ...lines.slice(middle)])) enough = middle
      else tooFew = middle
    }
    kept.push(lines[enough]!)
    from = enough + 1
  }
  // What was needed beside what came in later may not be any more.
  return kept.reduce((left, line) => {
    const fewer = left.filter((other) => other !== line)
    return suffices(fewer) ? fewer : left
  }, kept)
}

const isSame = (finding: Finding, { rule, subject, outcome, evidence, level }: Said): boolean =>
  finding.rule === rule &&
  finding.subject?.id === subject?.id &&
  finding.outcome === outcome &&
  finding.evidence === evidence &&
  finding.level === level
