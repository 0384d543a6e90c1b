import { describe, expect, it } from 'vitest'
import { doubtsOf, type Expected } from '@pasado/core/work/prove/doubts'
import { sparesOf, spareTold } from '@pasado/core/record/spares'
import type { MeasuredRun } from '@pasado/core/record/things/measurement'
import { complete, idOf, node, router } from '@pasado/testing/logbook'

const asked = (run: MeasuredRun, expected: Expected = {}) =>
  doubtsOf(run, expected).map(({ figure, instead }) => [figure, instead])

describe('a figure that looks wrong is asked about', () => {
  // What is typed, what it is held against, what is asked of and what it would be.
  it.each<[what: string, run: MeasuredRun, expected: Expected, doubts: unknown[]]>([
    ['nothing typed', {}, { paidDownMbps: 300, mostMbps: 1000 }, []],
    ['as paid for', { downMbps: 300, upMbps: 30 }, { paidDownMbps: 300, paidUpMbps: 30, mostMbps: 1000 }, []],
    ['just what the port can do', { downMbps: 1000 }, { mostMbps: 1000 }, []],
    ['a digit too many', { downMbps: 3000 }, { mostMbps: 1000 }, [['downMbps', 300]]],
    ['a digit too many up', { upMbps: 1001 }, { mostMbps: 1000 }, [['upMbps', 100.1]]],
    ['ten times what the port can do', { downMbps: 10_000 }, { mostMbps: 1000 }, [['downMbps', 1000]]],
    ['more than a digit too many', { downMbps: 30_000 }, { mostMbps: 1000 }, [['downMbps', null]]],
    ['megabytes', { downMbps: 37.5 }, { paidDownMbps: 300 }, [['downMbps', 300]]],
    ['megabytes up', { upMbps: 3.75 }, { paidUpMbps: 30 }, [['upMbps', 30]]],
    ['megabytes, rounded to a tenth', { downMbps: 33.33 }, { paidDownMbps: 300 }, [['downMbps', 266.6]]],
    ['the least that may be megabytes', { downMbps: 28.125 }, { paidDownMbps: 300 }, [['downMbps', 225]]],
    ['less than that', { downMbps: 28.1 }, { paidDownMbps: 300 }, []],
    ['the most that may be megabytes', { downMbps: 43.125 }, { paidDownMbps: 300 }, [['downMbps', 345]]],
    ['more than that', { downMbps: 43.2 }, { paidDownMbps: 300 }, []],
    ['what is paid for is not known', { downMbps: 37.5 }, {}, []],
    ['nothing came through', { downMbps: 0 }, { paidDownMbps: 0 }, []],
    ['nothing came through, of what is paid for', { downMbps: 0 }, { paidDownMbps: 300 }, []],
    ['seconds', { idleMs: 0.012 }, {}, [['idleMs', 12]]],
    ['seconds, loaded', { loadedMs: 0.4 }, {}, [['loadedMs', 400]]],
    ['half a millisecond may be', { idleMs: 0.5 }, {}, []],
    ['no latency at all is not asked about', { idleMs: 0 }, {}, []],
    ['exchanged', { idleMs: 90, loadedMs: 12 }, {}, [['loadedMs', null]]],
    ['just half of it may be', { idleMs: 24, loadedMs: 12 }, {}, []],
    ['a loaded one by itself', { loadedMs: 12 }, {}, []]
  ])('%s', (_, run, expected, doubts) => {
    expect(asked(run, expected)).toEqual(doubts)
  })

  it('with words that say what it would be', () => {
    expect(
      doubtsOf({ downMbps: 3000, upMbps: 3.75, idleMs: 0.012 }, { mostMbps: 1000, paidUpMbps: 30 }).map(
        ({ asks }) => asks
      )
    ).toEqual([
      '3000 Mbit/s down is more than the 1000 Mbit/s that the port can carry. A digit too many?',
      '3.75 up is about an eighth of the 30 Mbit/s paid for. Are these MB/s? Then it is 30 Mbit/s.',
      'A latency of 0.012 ms is less than any home has. Seconds? Then it is 12 ms.'
    ])
    expect(doubtsOf({ idleMs: 90, loadedMs: 12 }, {})[0]!.asks).toBe(
      'Loaded 12 ms is far below idle 90 ms. Are the two exchanged?'
    )
  })
})

it('a unit that was not needed is told with where it went, and no other is a spare', () => {
  const log = complete().write('unit.set', {
    id: idOf('third'),
    set: { name: 'Third', serial: 'TE1-9', spare: 'taken-back' }
  })
  expect(sparesOf(log.record())).toEqual([])
  log
    .write('thing.removed', { thing: 'unit', id: idOf('third') })
    .write('thing.removed', { thing: 'unit', id: node })
    .write('unit.set', { id: router, set: { spare: null } })
  expect(sparesOf(log.record()).map(spareTold)).toEqual(['Third (TE1-9): taken back'])
})
