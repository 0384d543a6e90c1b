import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Standard } from '@pasado/core/policy/standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { StandardView } from './StandardView'
import { idOf } from '@pasado/testing/logbook'
import { clearStores } from '../../test/idb'
import { answers, asked, json } from '../../test/stage'
import { lead, view } from '../../test/view'

const user = userEvent.setup({ delay: null })
beforeEach(clearStores)

describe('the standard', () => {
  const open = (role: 'lead' | 'technician' = 'lead', standards: Standard[] = [firstStandard]) => {
    answers.clear()
    answers.set('/standards', json({ standards }))
    view(<StandardView />, '/standard', '/standard', { ...lead, role })
  }

  it('a lead changes a level and a figure; what is out of its range stays as typed and is told; the draft is kept', async () => {
    open()
    await user.click(await screen.findByRole('button', { name: 'Draft the next version' }))
    await user.click(screen.getByRole('button', { name: /^Place/ }))
    const height = screen.getByRole('textbox', { name: 'Least mounted height, m' })
    await user.clear(height)
    await user.type(height, '12')
    expect(screen.getByRole('alert').textContent).toBe('must be from 0 to 10')
    await user.clear(height)
    await user.type(height, '0,8')
    await user.selectOptions(screen.getByLabelText('Level of Height'), 'must')
    const changes = screen.getByRole('region', { name: 'What changes' })
    expect(changes.textContent).toContain('Height: should → must')
    expect(changes.textContent).toContain('Least mounted height: 1 → 0.8 m')
    open()
    expect(await screen.findByText(/Version 2, a draft on this device/)).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Throw the draft away' }))
    expect(screen.getByRole('button', { name: 'Draft the next version' })).toBeDefined()
  })

  it('a file with a rule that is not there is refused with its place; a technician reads only', async () => {
    open()
    await screen.findByRole('button', { name: 'Draft the next version' })
    const file = new File([JSON.stringify({ ...firstStandard, levels: { nonsense: 'must' } })], 'standard.json', {
      type: 'application/json'
    })
    await user.upload(screen.getByLabelText('From JSON'), file)
    expect((await screen.findByRole('alert')).textContent).toContain('levels.nonsense there is no such rule')
    open('technician')
    await screen.findByText(/Version 1, in force/)
    expect(screen.queryByRole('button', { name: 'Draft the next version' })).toBeNull()
    expect(screen.queryByLabelText('From JSON')).toBeNull()
  })

  it('it is published only with a reason, after what it would have said of sealed visits was seen', async () => {
    open()
    answers.delete('/standards')
    answers.set(
      '/standards/effect',
      json({
        looked: 12,
        next: null,
        changes: [
          {
            rule: 'place-height',
            name: 'Height',
            subject: 'Loft node',
            visit: idOf('v'),
            street: '2 Curlew Bank',
            was: 'holds',
            is: 'breaks, must'
          }
        ]
      })
    )
    answers.set('/standards', json({ standards: [firstStandard] }))
    await user.click(await screen.findByRole('button', { name: 'Draft the next version' }))
    await user.click(screen.getByRole('button', { name: /^Place/ }))
    await user.selectOptions(screen.getByLabelText('Level of Height'), 'must')
    await user.click(screen.getByRole('button', { name: 'Publish …' }))
    const sheet = await screen.findByRole('dialog')
    expect(
      await within(sheet).findByText('Of the last 12 sealed visits 1 would have been judged otherwise.')
    ).toBeDefined()
    await user.click(within(sheet).getByRole('button', { name: 'Publish version 2' }))
    expect(within(sheet).getByRole('alert').textContent).toContain('note is missing')
    await user.type(within(sheet).getByLabelText('Why this version'), 'Children reach them.')
    await user.click(within(sheet).getByRole('button', { name: 'Publish version 2' }))
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ path: '/api/standards' }))
    expect(asked.find(({ method, path }) => method === 'POST' && path === '/api/standards')?.body).toMatchObject({
      standard: { version: 2, note: 'Children reach them.', levels: { 'place-height': 'must' } }
    })
  })

  it('rules that came with the program are told to a lead, who puts them in force by one press', async () => {
    open()
    const came = await screen.findByRole('region', { name: 'Rules that came with the program' })
    expect(came.textContent).toContain('What was done')
    expect(came.textContent).toContain('No wait of the visit is still running.')
    answers.set('/standards', json({ id: 'house', version: 2 }))
    await user.click(within(came).getByRole('button', { name: 'Put in force' }))
    const body = asked.find(({ method, path }) => method === 'POST' && path.endsWith('/standards'))?.body as {
      standard: Standard
    }
    expect(body.standard).toMatchObject({ version: 2, note: expect.stringContaining('came with the program') })
    expect(body.standard.rules).toEqual(expect.arrayContaining(['brief-scope', 'waits-ended']))
    open('technician')
    await screen.findByText(/Version 1, in force/)
    expect(screen.queryByRole('region', { name: 'Rules that came with the program' })).toBeNull()
    open('lead', [{ ...firstStandard, version: 2, rules: body.standard.rules! }, firstStandard])
    await screen.findByText(/Version 2, in force/)
    expect(screen.queryByRole('region', { name: 'Rules that came with the program' })).toBeNull()
  })
})
