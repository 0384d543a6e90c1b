import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Timers } from '@pasado/core/house/timers'

const nothing = () => undefined

describe('what comes by itself', () => {
  it('comes at its second, in the order in which it was begun where two come at once', () => {
    const timers = new Timers()
    const told: string[] = []
    timers.after('b', 5, () => told.push(`b at ${timers.now}`))
    timers.after('a', 5, () => told.push(`a at ${timers.now}`))
    timers.after('c', 2, () => told.push(`c at ${timers.now}`))
    expect(timers.nextAt).toBe(2)
    timers.advanceTo(4, nothing)
    expect(told).toEqual(['c at 2'])
    expect(timers.now).toBe(4)
    timers.advanceTo(9, nothing)
    expect(told).toEqual(['c at 2', 'b at 5', 'a at 5'])
    expect([timers.now, timers.nextAt]).toEqual([9, null])
  })

  it('does not come once the unit is interrupted, or waits for something later', () => {
    const timers = new Timers()
    const told: string[] = []
    timers.after('a', 5, () => told.push('first'))
    timers.after('a', 8, () => told.push('second'))
    timers.after('b', 6, () => told.push('other'))
    timers.interrupt('b')
    expect([timers.isBusy('a'), timers.isBusy('b'), timers.nextAt]).toEqual([true, false, 8])
    timers.advanceTo(20, nothing)
    expect(told).toEqual(['second'])
    expect(timers.isBusy('a')).toBe(false)
  })

  it('may begin what comes next, within the same stretch of time; whoever looks on is told before each', () => {
    const timers = new Timers()
    const told: string[] = []
    const again = () => {
      told.push(`at ${timers.now}`)
      if (timers.now < 30) timers.after('a', 10, again)
    }
    timers.after('a', 10, again)
    timers.advanceTo(100, () => told.push('looks'))
    expect(told).toEqual(['looks', 'at 10', 'looks', 'at 20', 'looks', 'at 30'])
  })

  it('comes the same whether time is let pass at once or second by second', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.integer({ min: 0, max: 40 })), { maxLength: 12 }),
        (begun) => {
          const run = (steps: number[]) => {
            const timers = new Timers()
            const told: string[] = []
            for (const [unit, seconds] of begun) timers.after(unit, seconds, () => told.push(`${unit} ${timers.now}`))
            for (const second of steps) timers.advanceTo(second, nothing)
            return told
          }
          expect(run(Array.from({ length: 41 }, (_, second) => second))).toEqual(run([40]))
        }
      )
    )
  })

  it('never goes back: an earlier second changes nothing', () => {
    const timers = new Timers()
    timers.advanceTo(10, nothing)
    timers.advanceTo(3, nothing)
    expect(timers.now).toBe(10)
  })
})
