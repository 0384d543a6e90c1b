import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { Chips } from './Chips'
import { Lens } from './Lens'
import { Mark, outcomeWords } from './Mark'
import { strokesOf } from '../visit/stages/sign-off/SignaturePad'
import { secretProblem } from '../visit/session/secrets'
import { clock } from '../visit/frame/Waits'
import { stageOutcome } from '@pasado/core/rules/weigh'
import { mixed } from '@pasado/testing/logbook'

afterEach(cleanup)

describe('parts', () => {
  it('every mark has its word, and its own outline', () => {
    const outlines = Object.keys(outcomeWords).map((outcome) => {
      const { container, unmount } = render(<Mark outcome={outcome as 'holds'} />)
      expect(screen.getByRole('img', { name: outcomeWords[outcome as 'holds'] })).toBeDefined()
      const drawn = container.innerHTML.replace(/aria-label="[^"]*"/, '')
      unmount()
      return drawn
    })
    expect(new Set(outlines).size).toBe(5)
  })

  it('a lens says what it does in words', () => {
    render(<Lens colour="orange/green" pattern="alternate" />)
    expect(screen.getByRole('img', { name: 'orange and green, in turn' })).toBeDefined()
  })

  it('chips are chosen by pointer and by keyboard', async () => {
    const chosen = vi.fn()
    render(
      <Chips
        label="Why"
        value="a"
        options={[
          { value: 'a', label: 'first' },
          { value: 'b', label: 'second' }
        ]}
        onChoose={chosen}
      />
    )
    await userEvent.click(screen.getByRole('radio', { name: 'second' }))
    expect(chosen).toHaveBeenCalledWith('b')
  })

  it('strokes become a path that an entry takes', () => {
    const path = strokesOf(
      [
        {
          points: [
            { x: 1, y: 2 },
            { x: 3, y: 4.25 }
          ]
        },
        {
          points: [
            { x: 5, y: 6 },
            { x: 7, y: 8 }
          ]
        }
      ],
      2
    )
    expect(path).toBe('M2 4 L6 8.5 M10 12 L14 16')
  })

  it('a clock shows minutes and seconds, never below nothing', () => {
    expect([clock(61_000), clock(-5), clock(599_400)]).toEqual(['1:01', '0:00', '10:00'])
  })

  it('a passphrase is checked before it is sent', () => {
    expect(secretProblem('wifi-passphrase', 'seven77', false)).toContain('at least 8')
    expect(secretProblem('wifi-passphrase', 'gulls', true)).toBeNull()
    expect(secretProblem('admin-password', 'x', false)).toBeNull()
  })

  it('a stage stands as its heaviest finding that counts', () => {
    const findings = ['kit-family', 'kit-role'].flatMap((rule) => mixed().judge(rule))
    expect(stageOutcome('kit', findings)).toBe('breaks')
    expect(
      stageOutcome('kit', mixed().write('rule.acknowledged', { rule: 'kit-family', reason: 'So.' }).judge('kit-family'))
    ).toBe('holds')
    expect(stageOutcome('prove', findings)).toBe('not-here')
  })
})
