import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { Docket } from './Docket'
import { complete, node, opened } from '@pasado/testing/logbook'
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
