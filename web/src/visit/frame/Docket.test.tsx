import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { Docket } from './Docket'
import { complete, idOf, node, opened } from '@pasado/testing/logbook'
import { clearStores } from '../../../test/idb'
import { show, written } from '../../../test/stage'

const user = userEvent.setup({ delay: null })
beforeEach(clearStores)

describe('the docket', () => {
  it('groups what is mended together with its minutes, says what it waits for, and is narrowed by stage', async () => {
    show(
      complete()
        .write('unit.set', { id: node, set: { place: null, heightM: 0.2 } })
        .write('unit.event', { unit: node, what: 'moved' }),
      <Docket />
    )
    expect(screen.getAllByText(/^Study node: \d together, about \d+ min$/)).not.toHaveLength(0)
    expect(screen.getAllByText('first Study node: final place').length).toBeGreaterThan(0)
    await user.selectOptions(screen.getByLabelText('Show of stage'), 'Prove')
    expect(screen.getByRole('status').textContent).toMatch(/^\d+ of \d+ shown/)
    expect(screen.queryByText('Passphrase')).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Show all' }))
    expect(screen.queryByRole('status')).toBeNull()
  })

  it('asks who was there which came first, a move or a test that did not know of each other', async () => {
    const log = complete()
    const base = log.entries.length
    const theirs = {
      from: idOf('theirs'),
      by: { id: idOf('corin'), name: 'Corin Saltway', role: 'technician' as const }
    }
    log.write('unit.event', { unit: node, what: 'moved' }, { ...theirs, base })
    log.write('unit.event', { unit: node, what: 'tested-good' }, { base, own: base })
    const [moved, tested] = log.entries.slice(-2)
    show(log, <Docket />)
    await user.click(screen.getByRole('button', { name: 'Which came first: Study node: test after the move' }))
    const sheet = screen.getByRole('dialog', { name: 'Which came first?' })
    expect(sheet.textContent).toContain('Corin Saltway')
    expect(sheet.textContent).toContain('by that device’s clock')
    await user.click(within(sheet).getByRole('button', { name: /^The change came first/ }))
    expect(written('order.said')).toEqual([{ change: moved!.id, proof: tested!.id, came: 'before' }])
    // Who was not there is not asked.
    show(log, <Docket />, { role: 'lead' })
    expect(screen.queryByRole('button', { name: /^Which came first/ })).toBeNull()
  })

  it('takes it by one press that something stood there before it was recorded', async () => {
    const theirs = idOf('their router')
    const late = () => complete().write('stays.set', { id: theirs, set: { kind: 'router', name: 'Their router' } })
    show(late(), <Docket />)
    await user.click(screen.getByRole('button', { name: 'It stood there then: Study node: test after the move' }))
    expect(written('thing.stood')).toEqual([{ thing: 'stays', id: theirs }])
    show(late().write('thing.stood', { thing: 'stays', id: theirs }), <Docket />)
    expect(screen.queryByRole('button', { name: /^It stood there then/ })).toBeNull()
  })

  it('says in one list what was proven once and is not any more, and why', async () => {
    show(complete().write('unit.event', { unit: node, what: 'reset' }), <Docket />)
    await user.click(screen.getByRole('button', { name: /^\d+ were proven once, and are not any more$/ }))
    const shown = screen.getAllByRole('button').flatMap((line) => line.textContent ?? '')
    const evidence = shown.filter((text) => text.includes('Study node was reset since.'))
    expect(evidence.length).toBeGreaterThan(3)
    expect(screen.getByRole('status').textContent).toMatch(
      /^Proven once, and something changed since: \d+ of \d+ shown/
    )
    expect(screen.queryByText('Made from this very record')).toBeNull()
    expect(screen.queryByText(/The pack has not been made/)).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Show all' }))
    expect(screen.getByText(/The pack has not been made/)).toBeDefined()
  })

  it('questions are answered one after another without leaving it', async () => {
    show(
      opened({ accessLine: 'telephone-line', telephone: true }).write('unit.set', {
        id: node,
        set: { name: 'Node', model: 'ostrel-tern', modelVersion: 1, role: 'node' }
      }),
      <Docket />
    )
    await user.click(screen.getByRole('button', { name: /^Answer \d questions$/ }))
    const sheet = screen.getByRole('dialog')
    const before = within(sheet).getAllByRole('radiogroup').length
    await user.click(within(within(sheet).getAllByRole('radiogroup')[0]!).getByRole('radio', { name: 'Yes' }))
    expect(written('rule.answered')).toHaveLength(1)
    await waitFor(() => expect(within(sheet).queryAllByRole('radiogroup').length).toBe(before - 1))
  })
})
