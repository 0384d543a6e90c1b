import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { Brief } from './Brief'
import { idOf, opened } from '@pasado/testing/logbook'
import { answers, chip, enter, json, show, written } from '../../../../test/stage'

const user = userEvent.setup()

describe('Brief', () => {
  it('writes a field when it is left, and only where it changed', async () => {
    show(opened(), <Brief />)
    await enter('Telephone', '555-0199')
    await user.click(screen.getByRole('textbox', { name: 'Customer' }))
    await user.tab()
    expect(written('brief.set')).toEqual([{ set: { phone: '555-0199' }, origin: 'typed' }])
  })

  it('takes a decimal comma, and says what is wrong with a number at its field while what was typed stays', async () => {
    show(opened(), <Brief />)
    await enter('Paid for, up', '12,5')
    await enter('Paid for, down', '-3')
    expect(written('brief.set')).toEqual([{ set: { speedUpMbps: 12.5 }, origin: 'typed' }])
    expect(screen.getByRole('alert').textContent).toBe('Paid for, down must be above 0')
    expect(screen.getByRole('textbox', { name: 'Paid for, down' })).toHaveProperty('value', '-3')
    expect(screen.getByRole('textbox', { name: 'Paid for, down' }).getAttribute('aria-invalid')).toBe('true')
  })

  it('an emptied field is cleared', async () => {
    show(opened(), <Brief />)
    await enter('Second way to reach them', '')
    expect(written('brief.set')).toEqual([{ set: { secondContact: null }, origin: 'typed' }])
  })

  it('asks about alarms on a telephone line, with the caution', async () => {
    show(opened({ accessLine: 'telephone-line' }), <Brief />)
    expect(screen.getByText(/ringing voltage/)).toBeDefined()
    expect(screen.queryByRole('textbox', { name: 'Who was told' })).toBeNull()
    await user.click(chip('Asked: what else hangs on the line', 'alarm'))
    await enter('Who was told', 'Beacon Alarms, 555-0177')
    expect(written('brief.set')).toEqual([
      { set: { lineCarries: 'alarm' }, origin: 'typed' },
      { set: { lineTold: 'Beacon Alarms, 555-0177' }, origin: 'typed' }
    ])
  })

  it('begins with what the visit before left with a reason, first of all what has had its day', async () => {
    const log = opened()
    Object.assign(log.entries[0]!.body, { startedFrom: idOf('before') })
    const left = (about: string, until: string | null) => ({
      rule: about,
      about,
      kind: 'waived',
      reason: 'Later.',
      until
    })
    const Asking = () => {
      answers.set(
        `/homes/${idOf('house')}`,
        json({
          visits: [],
          now: {
            sealedAt: '2026-01-05T10:00:00Z',
            left: [
              left('Hall router: height', null),
              left('Hall: room', '2099-01-31'),
              left('Study: room', '2026-01-31')
            ]
          }
        })
      )
      return <Brief />
    }
    show(log, <Asking />)
    const shown = await screen.findByRole('region', { name: 'Left by the visit before' })
    expect(
      within(shown)
        .getAllByRole('listitem')
        .map((line) => line.textContent)
    ).toEqual([
      'Study: room, waived: Later. Its day has passed: 31 Jan.',
      'Hall router: height, waived: Later.',
      'Hall: room, waived: Later. Until 31 Jan.'
    ])
  })

  it('notes are written and shown', async () => {
    show(opened(), <Brief />)
    await user.type(screen.getByRole('textbox', { name: 'Note' }), 'The dog bites.')
    await user.click(screen.getByRole('button', { name: 'Write it down' }))
    expect(written('note.written')).toEqual([{ text: 'The dog bites.' }])
    expect(screen.getByText('The dog bites.')).toBeDefined()
  })

  it.each(['office', 'sealed'] as const)('nobody writes: %s', (who) => {
    const log = opened()
    if (who === 'sealed')
      log.write('sealed', {
        chain: '0'.repeat(64),
        record: '0'.repeat(64),
        standard: '0'.repeat(64),
        catalogue: '0'.repeat(64),
        key: 'k',
        signature: 's'
      })
    show(log, <Brief />, { role: who === 'office' ? 'office' : 'technician' })
    for (const field of screen.getAllByRole('textbox')) expect(field).toHaveProperty('disabled', true)
    expect(screen.queryByRole('button', { name: 'Write it down' })).toBeNull()
  })

  it('two who set one field are told, and one of the values is kept', async () => {
    const log = opened()
    for (const [phone, from] of [
      ['555-0111', 'a'],
      ['555-0122', 'b']
    ] as const)
      log.write('brief.set', { set: { phone } }, { from: idOf(from), base: 1 })
    show(log, <Brief />)
    const conflict = screen.getByRole('group', { name: 'Conflict: Telephone' })
    await user.click(within(conflict).getByRole('button', { name: 'Keep 555-0111' }))
    expect(written('conflict.settled')).toEqual([
      {
        thing: 'brief',
        id: 'brief',
        field: 'phone',
        keep: 'earlier',
        values: { earlier: '555-0111', later: '555-0122' }
      }
    ])
    expect(screen.queryByRole('group', { name: 'Conflict: Telephone' })).toBeNull()
    expect(screen.getByRole('textbox', { name: 'Telephone' })).toHaveProperty('value', '555-0111')
  })
})
