import { cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter, Route, Routes } from 'react-router'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Standard } from '@pasado/core/policy/standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { demoModels } from '@pasado/demo/models/all'
import { AdvisoryPage } from '../src/advisory/AdvisoryPage'
import { useSession } from '../src/app/session'
import { StandardView } from '../src/standard/StandardView'
import { Docket } from '../src/visit/frame/Docket'
import { complete, idOf, node, opened } from '../../core/test/fixture'
import { clearStores } from './idb'
import { answers, asked, json, show, written } from './stage'

vi.mock('idb-keyval', () => import('./idb'))

const user = userEvent.setup({ delay: null })
beforeEach(clearStores)

function page(path: string, part: React.ReactNode, at: string, role: 'lead' | 'technician' | 'office' = 'lead') {
  cleanup()
  asked.length = 0
  useSession.setState({ me: { id: 'x', login: 'wenna', name: 'Wenna Tarrow', role } })
  return render(
    <MemoryRouter initialEntries={[at]}>
      <Routes>
        <Route path={path} element={part} />
      </Routes>
    </MemoryRouter>
  )
}

describe('the standard', () => {
  const open = (role: 'lead' | 'technician' = 'lead', standards: Standard[] = [firstStandard]) => {
    answers.clear()
    answers.set('/standards', json({ standards }))
    page('/standard', <StandardView />, '/standard', role)
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
})

describe('the docket', () => {
  it('groups what is mended together with its minutes, says what it waits for, and is narrowed by stage', async () => {
    show(
      complete()
        .write('unit.set', { id: node, set: { place: null, heightM: 0.2 } })
        .write('unit.event', { unit: node, what: 'moved' }),
      <Docket />
    )
    expect(screen.getByText(/^Study node: \d together, about \d+ min$/)).toBeDefined()
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

describe('an advisory', () => {
  it('chooses versions that were withdrawn by itself, lists whom to call, and leads to booking', async () => {
    answers.clear()
    answers.set(
      '/homes?version=3.0.0',
      json({
        units: [
          {
            home: idOf('h'),
            visit: idOf('v'),
            unit: idOf('u'),
            name: 'Loft node',
            serial: 'WM7-1',
            customer: 'Hob Vennick',
            street: '31 Samphire Walk',
            town: 'Ness Skerrow',
            phone: '555-0190'
          }
        ],
        more: false
      })
    )
    answers.set('/homes?version=', json({ units: [], more: false }))
    answers.set(
      '/advisory/ostrel-tern',
      json({
        versions: [
          { firmware: '3.0.0', units: 1, homes: 1 },
          { firmware: '3.1.0', units: 4, homes: 3 }
        ]
      })
    )
    answers.set('/catalogue', json({ models: demoModels }))
    page('/catalogue/:id/homes', <AdvisoryPage />, '/catalogue/ostrel-tern/homes', 'office')
    expect(await screen.findByRole('heading', { name: '1 home to call' })).toBeDefined()
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: /3\.0\.0.*withdrawn/ }).checked).toBe(true)
    expect(screen.getByText('555-0190')).toBeDefined()
    expect(screen.getByRole('link', { name: 'Book a visit at 31 Samphire Walk' }).getAttribute('href')).toBe(
      `/visit/new?home=${idOf('h')}`
    )
    await user.click(screen.getByRole('checkbox', { name: /3\.0\.0/ }))
    await waitFor(() => expect(screen.queryByRole('heading', { name: '1 home to call' })).toBeNull())
  })
})
