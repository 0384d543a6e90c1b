import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { demoModels } from '@pasado/demo/models/all'
import { AdvisoryPage } from './AdvisoryPage'
import { idOf } from '@pasado/testing/logbook'
import { clearStores } from '../../test/idb'
import { answers, json } from '../../test/stage'
import { lead, view } from '../../test/view'

const user = userEvent.setup({ delay: null })
beforeEach(clearStores)

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
    view(<AdvisoryPage />, '/catalogue/:id/homes', '/catalogue/ostrel-tern/homes', { ...lead, role: 'office' })
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
