import type { OfferGroup } from './commands'

/**
 * How well an offer answers to what was typed: every typed word must begin a word of the offer, or stand inside one.
 * @param keywords the offer's own words first, then what else it is found by
 * @returns from 0, not at all, to 1
 */
export function likeness(keywords: readonly string[], typed: string): number {
  const [words = '', ...rest] = keywords.map((keyword) => keyword.toLowerCase())
  const all = [words, ...rest].join(' ')
  const scores = typed
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .map((word): number => {
      if (words.startsWith(word)) return 1
      if (` ${words}`.includes(` ${word}`)) return 0.8
      if (` ${all}`.includes(` ${word}`)) return 0.6
      return all.includes(word) ? 0.3 : 0
    })
  return scores.includes(0) ? 0 : scores.reduce((sum, score) => sum + score, 0) / (scores.length || 1)
}

/** The offers that answer to what was typed, the likeliest first within their group, and the group with the likeliest first. */
export function likeliest(groups: readonly OfferGroup[], typed: string): OfferGroup[] {
  return groups
    .map((group) => {
      const scored = group.offers
        .map((offer) => ({
          offer,
          score: likeness([offer.label, offer.hint ?? '', group.name, offer.also ?? ''], typed)
        }))
        .filter(({ score }) => score > 0)
        .sort((a, b) => b.score - a.score)
      return { name: group.name, offers: scored.map(({ offer }) => offer), best: scored[0]?.score ?? 0 }
    })
    .sort((a, b) => b.best - a.best)
    .map(({ name, offers }) => ({ name, offers }))
}
