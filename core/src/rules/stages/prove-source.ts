import { measured, sourceOf } from '../../work/prove/rooms'
import { restsOfSource } from '../../work/prove/rests'
import { restsOnFields } from '../../history/stands'
import { installs } from '../../record/installs'
import { laterFigures } from '../../policy/standard'
import { breaks, byFigures, holds, noLonger, unproven, rule, type Home, type Place, type Verdict } from '../rule'

function judgeSource({ record, history, catalogue, policy }: Home): Verdict[] {
  const at: Place = { stage: 'prove', kind: 'measurement', id: 'source', field: 'runs' }
  const { speedDownMbps, providerReference } = record.brief.facts
  const source = sourceOf({ record, history }, catalogue)
  if (!source?.down)
    return [
      unproven(
        'The source was not measured by cable.',
        'Put a laptop on the modem or gateway by cable, and measure.',
        at
      )
    ]
  if (speedDownMbps === undefined)
    return [
      unproven('The speed paid for is not recorded.', 'Enter it under Brief.', {
        stage: 'brief',
        kind: 'brief',
        id: 'brief',
        field: 'speedDownMbps'
      })
    ]
  if (source.stale) return [noLonger(unproven(source.stale, 'Measure the source once more, by cable.', at))]
  const share = policy.sourceShare ?? laterFigures.sourceShare
  const gives = `${Math.round(source.down.median)} of ${speedDownMbps} Mbit/s paid for${source.down.count > 1 ? `, the median of ${source.down.count} runs` : ''}`
  if (source.down.median >= speedDownMbps * share) return [holds(`The source gives ${gives}.`)]
  if (providerReference !== undefined)
    return [holds(`The source gives ${gives}; the provider was told, reference ${providerReference}.`)]
  const { median } = source.down
  return [
    byFigures(
      'less than is due',
      [
        { name: 'Mbit/s down', value: median, better: 'more' },
        { name: 'share of what is due', value: median / (speedDownMbps * share), better: 'more' }
      ],
      breaks(
        `The source gives ${gives}; at least ${Math.round(share * 100)} % is due.`,
        'Restart the modem and measure again; else tell the provider, and record its reference.',
        at
      )
    )
  ]
}

export const proveSource = rule({
  id: 'prove-source',
  name: 'Source by cable',
  stage: 'prove',
  level: 'must',
  minutes: 4,
  statement:
    'Wired test at the source: at least the share of the speed paid for that the standard wants, or the provider was told.',
  figuresOfBefore: ['sourceShare'],
  restsOfBefore: (home, _, proof) =>
    measured(home, home.catalogue, ({ at }) => at === 'source').length > 0
      ? null
      : [
          ...restsOfSource(home, proof, home.catalogue),
          ...restsOnFields(
            'brief',
            'brief',
            { speedDownMbps: 'the speed paid for', speedUpMbps: 'the speed paid for', accessLine: 'the access line' },
            true
          )
        ],
  judge: (home) => (home.units.length || installs(home.record) ? judgeSource(home) : [])
})
