import { expect, it } from 'vitest'
import { lateLines, whyNotWrite } from '@pasado/core/record/may'
import { idOf, opened, type Log } from '@pasado/testing/logbook'

const [second, third] = [idOf('second'), idOf('third')]
const hand = (log: Log, id: string) =>
  log.write('visit.handed', { technician: { id, name: id }, reason: 'Ill.' }).entries.at(-1)!
/** Handed on twice; whoever had it first and second had one line each still on the device. */
const handedTwice = () => {
  const log = opened()
  const [first] = log.entries
  const toSecond = hand(log, second)
  const toThird = hand(log, third)
  const note = (base: number, by: string) => {
    log.write('note.written', { text: 'The hatch sticks.' })
    return Object.assign(log.entries.at(-1)!, { base, by: { ...first!.by, id: by } })
  }
  return {
    log,
    late: [note(first!.seq, first!.by.id), note(toSecond.seq, second)],
    inTime: [note(toThird.seq, third), note(toThird.seq, idOf('lead'))],
    first: first!.by.id
  }
}

it('a line is told apart that came after its author’s visit was handed on, however often it was', () => {
  const { log, late } = handedTwice()
  expect([...lateLines(log.entries)]).toEqual(late.map(({ seq }) => seq))
})

it('who had it writes what was written then; what came later, or too late, is not taken', () => {
  const { log, first } = handedTwice()
  const why = (id: string, base: number, afterH: number, lateH = 72) =>
    whyNotWrite(
      log.record(),
      () => log.entries,
      base,
      { id, role: 'technician' },
      new Date(Date.parse(log.entries.at(-1)!.received) + afterH * 3_600_000).toISOString(),
      lateH
    )
  expect([why(first, 1, 1), why(second, 2, 1), why(third, 3, 500)]).toEqual([null, null, null])
  expect(why(first, 2, 1)).toContain('Join it first')
  expect(why(first, 1, 73)).toContain('more than 72 hours ago')
  expect(why(first, 1, 73, 100)).toBeNull()
  expect(why(first, 1, 5, 4)).toContain('more than 4 hours ago')
  expect(why(idOf('stranger'), 0, 1)).toContain('Join it first')
})
