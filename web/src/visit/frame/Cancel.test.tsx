import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, it } from 'vitest'
import { complete, idOf, opened } from '@pasado/testing/logbook'
import { useSession } from '../../app/session'
import { answers, asked, show } from '../../../test/stage'
import { Brief } from '../stages/brief/Brief'
import { CancelledNotice, CancelVisit } from './Cancel'

const user = userEvent.setup({ delay: null })
const corin = { id: idOf('corin'), name: 'Corin Saltway', login: 'corin', role: 'technician' as const }
const cancelled = () => complete().write('visit.cancelled', { reason: 'The customer is away.' })

it('whoever has the visit cancels it, with why; another technician does not', async () => {
  show(opened(), <CancelVisit />)
  answers.set('/cancel', () => new Response(null, { status: 204 }))
  await user.click(screen.getByRole('button', { name: 'Cancel it' }))
  await user.click(screen.getByRole('button', { name: 'Cancel the visit' }))
  expect(screen.getByRole('alert').textContent).toBe('The reason is missing: say why.')
  await user.type(screen.getByRole('textbox', { name: 'Why' }), 'The customer is away.')
  await user.click(screen.getByRole('button', { name: 'Cancel the visit' }))
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
  expect(asked.filter(({ path }) => path.endsWith('/cancel')).map(({ body }) => body)).toEqual([
    { reason: 'The customer is away.' }
  ])
  show(opened(), <CancelVisit />)
  useSession.setState({ me: corin } as never)
  await waitFor(() => expect(screen.queryByRole('button', { name: 'Cancel it' })).toBeNull())
})

it('a cancelled visit says since when and why, takes nothing, and is reopened with why', async () => {
  show(cancelled(), <CancelledNotice />, { role: 'office' })
  answers.set('/reopen', () => new Response(null, { status: 204 }))
  expect(screen.getByRole('note', { name: 'This visit is cancelled' }).textContent).toContain('The customer is away.')
  await user.click(screen.getByRole('button', { name: 'Reopen it' }))
  await user.type(screen.getByRole('textbox', { name: 'Why' }), 'They are back.')
  await user.click(screen.getByRole('button', { name: 'Reopen the visit' }))
  await waitFor(() => expect(asked.some(({ path }) => path.endsWith('/reopen'))).toBe(true))
  show(cancelled(), <Brief />)
  expect(screen.getByRole('textbox', { name: 'Street' })).toHaveProperty('disabled', true)
  expect(screen.queryByRole('button', { name: 'Cancel it' })).toBeNull()
  expect(screen.queryByRole('button', { name: 'Write it down' })).toBeNull()
})
