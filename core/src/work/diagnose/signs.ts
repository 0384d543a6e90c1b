import type { Observed } from './belief'
import type { CauseId } from './causes'
import { observations, type Observation, type ObservationId } from './observations'
import { waysOf } from './table'

/** What would be seen if a cause were so, and what was seen. */
export interface Sign {
  observation: Observation
  /** The answer that the cause would most likely give. */
  wanted: string
  /** What was answered; undefined where nobody looked. */
  seen: string | undefined
}

/** From this chance on an answer is one that the cause would give. */
const TELLING = 0.5
/** An answer that the cause gives more seldom than this does not fit it. */
const DOES_NOT_FIT = 0.15

/**
 * What a cause would show, in the way in which it goes best with what was seen: the looks that it changes, those answered otherwise first, then those that
 * nobody took; and answers that do not fit it. Only looks that there are at this home.
 */
export function signsOf(
  cause: CauseId,
  observed: Observed,
  offered?: ReadonlySet<string>
): { would: Sign[]; misfits: Sign[] } {
  const isThere = (id: ObservationId) => offered === undefined || offered.has(id) || observed[id] !== undefined
  const looks = observations.filter(({ id }) => isThere(id))
  const ways = waysOf(cause).map((way) => ({
    ...way,
    fits: looks.reduce((sum, { id }) => {
      const seen = observed[id]
      return seen === undefined ? sum : sum + Math.log(way.chances(id)[seen] ?? 1)
    }, Math.log(way.share))
  }))
  const way = ways.reduce((best, candidate) => (candidate.fits > best.fits ? candidate : best))
  const signs = looks.map(({ id, ...look }) => {
    const chances = way.chances(id)
    const [wanted, chance] = Object.entries(chances).sort(([, a], [, b]) => b - a)[0]!
    const seen = observed[id]
    return {
      sign: { observation: { id, ...look }, wanted, seen },
      changes: way.changes(id) && wanted !== look.answers[0]!.id && chance >= TELLING,
      fits: seen === undefined || (chances[seen] ?? 1) >= DOES_NOT_FIT
    }
  })
  const rank = ({ wanted, seen }: Sign) => {
    if (seen === undefined) return 1
    return seen === wanted ? 0 : 2
  }
  return {
    would: signs
      .filter(({ changes }) => changes)
      .map(({ sign }) => sign)
      .sort((a, b) => rank(a) - rank(b)),
    misfits: signs.filter(({ fits }) => !fits).map(({ sign }) => sign)
  }
}
