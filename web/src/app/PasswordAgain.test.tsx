import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, it } from 'vitest'
import { PasswordAgain } from './PasswordAgain'
import { withPassword } from './password-again'
import { ask } from './api'
import { opened } from '@pasado/testing/logbook'
import { answers, json, show } from '../../test/stage'

const aSecret = { params: { id: 'visit', ref: 'secret' }, body: { why: 'checking it' } } as const
const user = userEvent.setup()
const wanted = json(
  { type: 'urn:pasado:problem:password-again', title: 'You have looked at 10 secrets within the hour.', status: 403 },
  403
)
const refused = json({ type: 'urn:pasado:problem:refused', title: 'Not acceptable.', status: 422 }, 422)

it('the password is asked for again, and what was wanted is done once it is right', async () => {
  show(opened(), <PasswordAgain />)
  answers.set('/show', wanted)
  answers.set('/session/again', refused)
  const value = withPassword(() => ask('POST /visits/:id/secrets/:ref/show', aSecret))
  expect(await screen.findByText('You have looked at 10 secrets within the hour.')).toBeDefined()
  await user.type(screen.getByLabelText('Password'), 'wrong one{Enter}')
  expect((await screen.findByRole('alert')).textContent).toContain('not your password')
  answers.set('/session/again', () => new Response(null, { status: 204 }))
  answers.set('/show', json({ value: 'shown' }))
  await user.type(screen.getByLabelText('Password'), 'right one{Enter}')
  expect(await value).toEqual({ value: 'shown' })
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
})

it('put away, nothing is shown and the refusal stands', async () => {
  show(opened(), <PasswordAgain />)
  answers.set('/show', wanted)
  const value = withPassword(() => ask('POST /visits/:id/secrets/:ref/show', aSecret)).catch(
    (error: unknown) => (error as { status: number }).status
  )
  await user.click(await screen.findByRole('button', { name: 'Put away' }))
  expect(await value).toBe(403)
})
