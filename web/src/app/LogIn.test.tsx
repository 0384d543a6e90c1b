import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { LogIn } from './LogIn'
import { Shell } from './Shell'
import { answers, asked, currentAddress, json } from '../../test/stage'
import { me, view } from '../../test/view'

const user = userEvent.setup()
beforeEach(() => answers.clear())

describe('logging in', () => {
  it('asks for both, and goes where the person wanted to go', async () => {
    view(<LogIn />, '/login', '/login?to=%2Fhomes')
    await user.click(screen.getByRole('button', { name: 'Log in' }))
    expect(await screen.findByText('Enter your login.')).toBeDefined()
    expect(asked).toEqual([])
    answers.set('/session', json({ person: me }))
    await user.type(screen.getByLabelText('Login'), 'isolde')
    await user.type(screen.getByLabelText('Password'), 'demo')
    await user.click(screen.getByRole('button', { name: 'Log in' }))
    await waitFor(() => expect(currentAddress()).toBe('/homes'))
  })

  it('a wrong password is told; an address of another site is not gone to', async () => {
    view(<LogIn />, '/login', '/login?to=%2F%2Fevil.example.org')
    answers.set('/session', json({ title: 'Login or password are not right.', status: 401 }, 401))
    await user.type(screen.getByLabelText('Login'), 'isolde')
    await user.type(screen.getByLabelText('Password'), 'wrong')
    await user.click(screen.getByRole('button', { name: 'Log in' }))
    expect((await screen.findByRole('alert')).textContent).toBe('Login or password are not right.')
    answers.set('/session', json({ person: me }))
    await user.click(screen.getByRole('button', { name: 'Log in' }))
    await waitFor(() => expect(currentAddress()).toBe('/'))
  })

  it('who is not logged in is sent to the log-in, and comes back', () => {
    view(<Shell />, '/homes', '/homes?q=kelp', null)
    expect(currentAddress()).toBe('/login?to=%2Fhomes%3Fq%3Dkelp')
  })

  it('a menu logs out here or everywhere', async () => {
    view(<Shell />, '/', '/')
    answers.set('/sessions', () => new Response(null, { status: 204 }))
    await user.click(screen.getByRole('button', { name: /Isolde Marram/ }))
    await user.click(await screen.findByRole('menuitem', { name: 'Log out everywhere' }))
    await waitFor(() => expect(currentAddress()).toBe('/login'))
    expect(asked.at(-1)).toMatchObject({ method: 'DELETE', path: '/api/sessions' })
  })

  it('a person’s outbox has one id on a device, whichever tab asks', async () => {
    const { outboxIdOf } = await import('../outbox/rows')
    const [first, two] = [await outboxIdOf('isolde'), await outboxIdOf('isolde')]
    expect(first).toBe(two)
    expect(first).toMatch(/^[0-9a-f-]{36}$/)
    expect(await outboxIdOf('corin')).not.toBe(first)
  })
})
