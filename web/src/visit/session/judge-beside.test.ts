import { beforeEach, expect, it, vi } from 'vitest'
import { fold } from '@pasado/core/history/fold'
import type { Entry } from '@pasado/core/record/entry'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { catalogue, complete, network, node } from '@pasado/testing/logbook'
import type * as Beside from './judge-beside'
import { visitJudge, type JudgeAsk } from '../../workers/judge-visit'

/** A worker as the page sees it: each question is answered a moment later, until it breaks off. */
class RulesWorker extends EventTarget {
  static started = 0
  static breaksAt = Infinity
  static isSilent = false
  static asked: JudgeAsk[] = []
  readonly #judge = visitJudge()
  constructor() {
    super()
    RulesWorker.started++
  }
  postMessage({ id, what }: { id: number; what: JudgeAsk }) {
    // As it is cloned on its way there and back.
    const asked = structuredClone(what)
    RulesWorker.asked.push(asked)
    if (RulesWorker.isSilent) return
    setTimeout(() => {
      if (RulesWorker.asked.length >= RulesWorker.breaksAt) this.dispatchEvent(new Event('error'))
      else
        this.dispatchEvent(new MessageEvent('message', { data: { id, answer: structuredClone(this.#judge(asked)) } }))
    })
  }
  terminate() {}
}

const lines = complete()
  .write('unit.set', { id: node, set: { firmwareAfter: '2.8.1' } })
  .write('network.set', { id: network, set: { ssid: 'Guillemot' } }).entries as Entry[]
/** The first lines of the logbook are confirmed, the next on their way. */
const asked = (confirmed: number, pending = 0) => ({
  entries: lines.slice(0, confirmed),
  pending: lines.slice(confirmed, confirmed + pending),
  catalogue,
  standard: firstStandard,
  durations: new Map()
})
const whole = (through: number) =>
  structuredClone(evaluate(fold(lines.slice(0, through)), catalogue, firstStandard, { now: new Date().toISOString() }))

let beside: typeof Beside

beforeEach(async () => {
  Object.assign(RulesWorker, { started: 0, breaksAt: Infinity, isSilent: false, asked: [] })
  vi.stubGlobal('Worker', RulesWorker)
  vi.resetModules()
  beside = await import('./judge-beside')
})

it('says line after line what the rules say of the whole, and sends each line once', async () => {
  const end = lines.length
  for (const [confirmed, pending] of [
    [end - 3, 0],
    [end - 3, 2],
    [end - 2, 1],
    [end, 0]
  ] as const)
    expect((await beside.judgeBeside(asked(confirmed, pending)))!.findings).toEqual(whole(confirmed + pending))
  expect(RulesWorker.asked.map(({ fresh, begin }) => [fresh.length, begin !== undefined])).toEqual([
    [end - 3, true],
    [0, false],
    [1, false],
    [2, false]
  ])
})

it('what says the same is the same, one by one and all', async () => {
  const before = await beside.judgeBeside(asked(lines.length - 1))
  expect((await beside.judgeBeside(asked(lines.length - 1)))!.findings).toBe(before!.findings)
  const after = await beside.judgeBeside(asked(lines.length))
  expect(after!.findings).not.toBe(before!.findings)
  expect(after!.findings.filter((finding) => before!.findings.includes(finding)).length).toBeGreaterThan(40)
  expect(after!.rules).toBe(before!.rules)
})

it('of what waits only the newest is asked', async () => {
  const said = await Promise.all([-3, -2, -1, 0].map((back) => beside.judgeBeside(asked(lines.length + back))))
  expect(said.map((each) => each !== null)).toEqual([true, false, false, true])
  expect(said[3]!.findings).toEqual(whole(lines.length))
})

it('where the worker breaks off the rules are asked on the page, of all of it, and go on there', async () => {
  await beside.judgeBeside(asked(lines.length - 2))
  RulesWorker.breaksAt = 2
  expect((await beside.judgeBeside(asked(lines.length - 1)))!.findings).toEqual(whole(lines.length - 1))
  expect((await beside.judgeBeside(asked(lines.length)))!.findings).toEqual(whole(lines.length))
  expect(RulesWorker.started).toBe(1)
})

it('one that says nothing any more is given up after a while', async () => {
  await beside.judgeBeside(asked(lines.length - 1))
  RulesWorker.isSilent = true
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  const said = beside.judgeBeside(asked(lines.length))
  await vi.advanceTimersByTimeAsync(31_000)
  vi.useRealTimers()
  expect((await said)!.findings).toEqual(whole(lines.length))
})

it('by another version of the standard all is asked anew', async () => {
  await beside.judgeBeside(asked(lines.length))
  const standard = { ...firstStandard, version: 2, levels: { 'firm-minimum': 'note' as const } }
  const said = await beside.judgeBeside({ ...asked(lines.length), standard })
  expect(said!.findings.find(({ rule }) => rule === 'firm-minimum')!.level).toBe('note')
})
