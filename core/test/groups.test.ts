import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Groups } from '@pasado/core/values/groups'

describe('groups', () => {
  it('whoever was never joined is a group alone', () => {
    const groups = new Groups<string>()
    expect(groups.of('a')).toBe('a')
    expect(groups.areOne('a', 'a')).toBe(true)
    expect(groups.areOne('a', 'b')).toBe(false)
  })

  it('are those that a walk along the joins reaches, in whatever order they were joined and however often', () => {
    const thing = fc.nat(9)
    fc.assert(
      fc.property(fc.array(fc.tuple(thing, thing), { maxLength: 30 }), (joins) => {
        const groups = new Groups<number>()
        for (const [a, b] of joins) groups.join(a, b)
        const reached = (from: number) => {
          const seen = new Set([from])
          for (let grew = true; grew;) {
            grew = false
            for (const [a, b] of joins)
              for (const [first, other] of [
                [a, b],
                [b, a]
              ] as const)
                if (seen.has(first) && !seen.has(other)) {
                  seen.add(other)
                  grew = true
                }
          }
          return seen
        }
        for (let a = 0; a < 10; a++) {
          const there = reached(a)
          for (let b = 0; b < 10; b++) expect(groups.areOne(a, b)).toBe(there.has(b))
        }
      })
    )
  })

  it('who stands for a group that joins another is who stood for the other', () => {
    const groups = new Groups<string>()
    groups.join('a', 'b')
    groups.join('c', 'd')
    const stood = groups.of('d')
    groups.join('a', 'c')
    expect(groups.of('b')).toBe(stood)
  })
})
