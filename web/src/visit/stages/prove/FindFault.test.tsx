import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { observations } from '@pasado/core/work/diagnose/observations'
import { Prove } from './Prove'
import { complete, idOf, node } from '@pasado/testing/logbook'
import { show, written } from '../../../../test/stage'

const user = userEvent.setup({ delay: null })

describe('finding a fault', () => {
  const begin = async () => {
    show(complete(), <Prove />, { at: '/visit/x/prove?part=fault' })
    await user.selectOptions(screen.getByLabelText('What does not work'), 'Study node')
    await user.click(screen.getByRole('button', { name: 'Find the fault' }))
  }

  it('a tap answers, is written, and can be taken back; what the record knows is not asked', async () => {
    await begin()
    const seen = screen.getByRole('region', { name: 'What was seen' })
    expect(seen.textContent).toContain('Is the unit’s firmware an approved one? approved the firmware recorded')
    const next = screen.getByRole('group', { name: 'Look at this next' })
    const asks = within(next).getByRole('heading').textContent
    await user.click(within(next).getAllByRole('button')[0]!)
    await waitFor(() => expect(written('fault.observed')).toHaveLength(1))
    await user.click(within(seen).getByRole('button', { name: `Take back: ${asks}` }))
    expect(written('fault.observed').at(-1)).toMatchObject({ answer: null })
    expect(within(screen.getByRole('group', { name: 'Look at this next' })).getByRole('heading').textContent).toBe(asks)
  })

  it('told that the line is down it hands over to the provider, with what was ruled out', async () => {
    const log = complete()
      .write('unit.set', {
        id: idOf('gw'),
        set: { name: 'Gateway', model: 'brackwater-c3', modelVersion: 1, role: 'gateway' }
      })
      .write('thing.removed', { thing: 'measurement', id: idOf('src') })
      .write('fault.search', { search: idOf('hunt'), about: { unit: node } })
    for (const [observation, answer] of [
      ['line-lamp', 'no-line'],
      ['wired-modem', 'no'],
      ['others', 'down'],
      ['wifi-unit', 'no'],
      ['ping-number', 'no']
    ] as const)
      log.write('fault.observed', { search: idOf('hunt'), observation, answer })
    show(log, <Prove />, { at: '/visit/x/prove?part=fault' })
    const mend = screen.getByRole('group', { name: 'Mend this' })
    expect(mend.textContent).toContain('The line is down')
    await user.click(within(mend).getByRole('button', { name: 'Hand over to the provider' }))
    const text = screen.getByLabelText<HTMLTextAreaElement>('Text to send').value
    expect(text).toContain('Ruled out:')
    expect(text).not.toContain('Oakum')
    await user.click(screen.getByRole('button', { name: 'Given to the provider' }))
    expect(written('fault.found')).toMatchObject([{ cause: 'line-down', end: 'provider' }])
  })

  /** A search in which so much was answered. */
  const searched = (answers: Record<string, string>) => {
    const log = complete().write('fault.search', { search: idOf('hunt'), about: { unit: node } })
    for (const [observation, answer] of Object.entries(answers))
      log.write('fault.observed', { search: idOf('hunt'), observation, answer })
    show(log, <Prove />, { at: '/visit/x/prove?part=fault' })
  }

  it('a mend that helped while something is still wrong goes on with the other fault', async () => {
    searched({ 'unit-lamp': 'weak', 'hop-signal': 'weak', 'wifi-unit': 'slow', others: 'slow', 'signal-room': 'good' })
    const mend = screen.getByRole('group', { name: 'Mend this' })
    expect(within(mend).getByRole('heading').textContent).toContain('The hop to it is too weak')
    await user.click(within(mend).getByRole('button', { name: 'It helped, but something is still wrong' }))
    expect(written('fault.observed').at(-1)).toMatchObject({ observation: 'mended.backhaul-weak', answer: 'partly' })
    expect(screen.queryByRole('heading', { name: /The hop to it is too weak/ })).toBeNull()
  })

  it('a cause says what it would show, what of it was seen, and what does not fit', async () => {
    searched({ 'unit-lamp': 'weak', 'hop-signal': 'good', 'wifi-unit': 'slow' })
    const causes = screen.getByRole('region', { name: 'Causes' })
    await user.click(within(causes).getByRole('button', { name: /The hop to it is too weak/ }))
    const told = within(causes).getByRole('heading', { name: 'If it were so' }).nextElementSibling!
    expect(told.textContent).toMatch(/What do the unit’s lamps say\? weak signal; seen\./)
    expect(told.textContent).toMatch(/hear the one before it\? weak, but seen was good\./)
  })

  it('what points nowhere is handed over with what was seen, and nothing is wiped', async () => {
    const sound = Object.fromEntries(
      observations.filter(({ id }) => id !== 'other-device').map(({ id, answers }) => [id as string, answers[0]!.id])
    )
    searched({ ...sound, 'other-device': 'same' })
    const mend = screen.getByRole('group', { name: 'Mend this' })
    expect(mend.textContent).toContain('Something that is not on this list')
    expect(mend.textContent).toContain('Nothing is wiped')
    await user.click(within(mend).getByRole('button', { name: 'Hand it over' }))
    await user.click(screen.getByRole('button', { name: 'Asked for help: left as it is' }))
    expect(written('fault.found')).toMatchObject([{ cause: 'something-else', end: 'left' }])
  })

  it('answers that hardly go together are shown, not swallowed', () => {
    const log = complete().write('fault.search', { search: idOf('hunt'), about: { unit: node } })
    for (const [observation, answer] of [
      ['unit-lamp', 'starts-over'],
      ['wifi-unit', 'yes'],
      ['client-count', 'rises'],
      ['adapter-label', 'own']
    ] as const)
      log.write('fault.observed', { search: idOf('hunt'), observation, answer })
    show(log, <Prove />, { at: '/visit/x/prove?part=fault' })
    expect(screen.getByRole('note').textContent).toContain('hardly go together')
  })
})
