import { describe, expect, it } from 'vitest'
import { planHomeChannels, stayingRadios } from '@pasado/core/work/channels/home-channels'
import { catalogue, complete, idOf, opened, type Log } from '@pasado/testing/logbook'

const theirs = idOf('their router')
const set24 = [1, 6, 11]
const best24 = (log: Log) => {
  const { radios, best } = planHomeChannels(log.record(), catalogue, { set24 })
  return radios.flatMap(({ band }, at) => (band === '2.4' ? [best.choices[at]!.channel] : []))
}
const router = (log: Log) => log.write('stays.set', { id: theirs, set: { kind: 'router', name: 'Their router' } })
const sends = (log: Log, channel: number) =>
  log.write('radio.set', { id: idOf('r'), set: { unit: theirs, band: '2.4', channel, widthMHz: 20 } })

describe('the radios of what stays', () => {
  it('are those of its model, else of the usual two bands; what does not send has none', () => {
    const bandsOf = (log: Log) => stayingRadios(log.record(), catalogue).map(({ band }) => band)
    expect(bandsOf(router(opened()))).toEqual(['2.4', '5'])
    expect(
      bandsOf(router(opened()).write('stays.set', { id: theirs, set: { model: 'oldmere-weir', modelVersion: 1 } }))
    ).toEqual(['2.4'])
    expect(bandsOf(opened().write('stays.set', { id: theirs, set: { kind: 'printer' } }))).toEqual([])
    expect(bandsOf(router(opened()).write('thing.removed', { thing: 'stays', id: theirs }))).toEqual([])
  })

  it('are kept out of the way of: no radio of ours is put on the channel of a router that stays', () => {
    for (const channel of set24) expect(best24(sends(router(complete()), channel))).not.toContain(channel)
    // Of one whose channel nobody recorded nothing is known.
    expect(best24(router(complete()))).toEqual(best24(complete()))
  })
})
