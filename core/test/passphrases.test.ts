import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { attacks, guessTimes, timeInWords } from '@pasado/core/secrets/guessing'
import { judgeHandling } from '@pasado/core/secrets/handling'
import { makePassphrase, madeBits } from '@pasado/core/secrets/make'
import { readDnsServers } from '@pasado/core/values/dns'

describe('how long a passphrase holds', () => {
  it('half of the guesses at the stated rate, in words', () => {
    const times = guessTimes(41)
    expect(times.map(({ id }) => id)).toEqual(attacks.map(({ id }) => id))
    expect(times[1]!.seconds).toBeCloseTo(2 ** 40 / 2e6, 3)
    expect(times[1]!.duration).toBe('6 days')
    expect(guessTimes(madeBits)[2]!.duration).toMatch(/years$/)
    expect(guessTimes(0)[2]!.duration).toBe('at once')
    expect([1, 59, 3600, 86_400, 1e9, 1e13, 1e20].map(timeInWords)).toEqual([
      '1 second',
      '59 seconds',
      '1 hour',
      '24 hours',
      '32 years',
      '317 thousand years',
      'more than a million years'
    ])
  })

  it('more bits never fall sooner, and a faster way is never slower', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 120, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        (bits, more) => {
          const [a, b] = [guessTimes(bits), guessTimes(bits + more)]
          for (const at of a.keys()) expect(b[at]!.seconds).toBeGreaterThanOrEqual(a[at]!.seconds)
          expect(a[0]!.seconds).toBeGreaterThanOrEqual(a[2]!.seconds)
        }
      )
    )
  })
})

describe('how a passphrase is said and typed', () => {
  it('presses of a remote control are counted over the grid', () => {
    // q stands under 1: one down and the press; w is one to the right; a capital turns the page.
    expect(judgeHandling('q').remotePresses).toBe(2)
    expect(judgeHandling('qw').remotePresses).toBe(4)
    expect(judgeHandling('qW').remotePresses).toBe(6)
    expect(judgeHandling('').remotePresses).toBe(0)
  })

  it('look-alikes and changes are told where they mislead, and not in plain words', () => {
    expect(judgeHandling('demo-lantern-harbour').reasons).toEqual([])
    expect(judgeHandling('O0lI1').confused).toEqual(['O', '0', 'l', 'I', '1'])
    expect(judgeHandling('aB3$xY7!').reasons.join()).toContain('changes')
  })

  it('made ones are easy to say, whatever is drawn', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(2 ** 31), { minLength: 12, maxLength: 12 }), (numbers) => {
        const left = [...numbers]
        const { reasons, confused } = judgeHandling(makePassphrase((below) => left.shift()! % below))
        expect(confused).toEqual([])
        expect(reasons.every((candidate) => candidate.includes('presses'))).toBe(true)
      })
    )
  })
})

describe('name servers by hand', () => {
  it('one to four addresses, told apart from slips', () => {
    expect(readDnsServers('192.0.2.53, 198.51.100.53')).toEqual({ servers: ['192.0.2.53', '198.51.100.53'] })
    expect(readDnsServers('192.0.2')).toHaveProperty('problem', expect.stringContaining('192.0.2'))
    expect(readDnsServers('192.0.2.53 192.0.2.53')).toHaveProperty('problem', expect.stringContaining('twice'))
    expect(readDnsServers('  ')).toHaveProperty('problem')
  })
})
