import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evaluate } from '@pasado/core/rules/evaluate'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { standing } from '@pasado/core/record/record'
import { catalogue, type Log } from '@pasado/testing/logbook'
import { allCases as cases } from './all-cases'

const standard = nextDraft(firstStandard)
const acts = ['reset', 'restarted', 'moved', 'updated', 'settings-changed', 'removed'] as const

/** Rules that ask for that very act; whether anything was done here at all, each act answers. */
const asksFor: Readonly<Record<(typeof acts)[number], readonly string[]>> = {
  reset: ['kit-reset', 'brief-scope'],
  restarted: ['cable-modem-restart', 'brief-scope'],
  moved: ['place-final', 'brief-scope'],
  updated: ['brief-scope'],
  'settings-changed': ['brief-scope'],
  // What it called for is not called for any more; what is not known of it, a name that it comes with, a key on its label, is in nobody’s way.
  removed: ['hand-cautions', 'wifi-name', 'wifi-passphrase', 'brief-scope', 'addr-single-nat']
}

const judge = (log: Log) =>
  new Map(
    evaluate(log.folded(), catalogue, standard).map((finding) => [
      // A rule may speak of one unit twice: of each of its bands.
      `${finding.rule} ${finding.subject?.id ?? ''} ${finding.subject?.name ?? ''}`,
      finding
    ])
  )

describe('whatever a visit holds', () => {
  it('a reset, restart, move, update, changed settings or a removal proves nothing that was not proven', () => {
    fc.assert(
      fc.property(fc.nat(cases.length - 1), fc.constantFrom(...acts), fc.nat(), (which, act, at) => {
        const [, , from, change] = cases[which]!
        const log = from()
        change(log)
        const units = standing(log.record().units)
        const unit = units[at % Math.max(1, units.length)]
        if (!unit) return
        const before = judge(log)
        if (act === 'removed') log.write('thing.removed', { thing: 'unit', id: unit.id })
        else log.write('unit.event', { unit: unit.id, what: act })
        const better = [...judge(log)].flatMap(([key, now]) => {
          const was = before.get(key)
          const isOfIt = asksFor[act].includes(now.rule)
          // What broke because of the thing removed is mended by that; nothing is proven by it.
          const wasOpen = was?.outcome === 'unproven' || (was?.outcome === 'breaks' && act !== 'removed')
          return !isOfIt && wasOpen && now.outcome === 'holds' ? [`${key}: ${was.evidence} → ${now.evidence}`] : []
        })
        expect(better).toEqual([])
      }),
      { numRuns: Number(process.env.NEVER_BETTER_RUNS ?? 150) }
    )
  }, 600_000)
})
