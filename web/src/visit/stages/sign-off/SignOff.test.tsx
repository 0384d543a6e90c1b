import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import type { Entry } from '@pasado/core/record/entry'
import { packDigest, signedDigest } from '@pasado/core/record/seal'
import { HandOver } from '../hand-over/HandOver'
import { SignOff } from './SignOff'
import { complete, idOf, network } from '@pasado/testing/logbook'
import { useVisit } from '../../session/visit-state'
import { answers, asked, chip, json, show, written } from '../../../../test/stage'

const user = userEvent.setup()

describe('Hand over and Sign off', () => {
  it('choices are asked and answered', async () => {
    show(complete(), <HandOver />)
    await user.click(chip('Status lamps', 'off'))
    await user.click(chip('Who keeps the passwords', 'only the customer keeps them'))
    expect(written('choice.answered')).toEqual([{ choice: 'lamp', answer: 'off' }])
    expect(written('custody.answered')).toEqual([{ custody: 'customer-only-now' }])
    expect(screen.getByText('Was the customer told that a dark lamp means that all is well?')).toBeDefined()
  })

  it('how the pack was given is asked once it is made from the record as it is', async () => {
    const log = complete()
    show(log, <HandOver />)
    expect(screen.queryByRole('radiogroup', { name: 'How was it given' })).toBeNull()
    log.write('pack.made', { digest: packDigest(log.record()) })
    show(log, <HandOver />)
    await user.click(chip('How was it given', 'given by mail'))
    expect(written('pack.given')).toEqual([{ how: 'by mail' }])
    log.write('network.set', { id: network, set: { ssid: 'Guillemot' } })
    show(log, <HandOver />)
    expect(screen.getByText('The record changed since it was made: make it again.')).toBeDefined()
  })

  it('nobody signs while something stands in the way', () => {
    show(complete(), <SignOff />)
    expect(screen.getByRole('button', { name: 'Sign as customer' })).toHaveProperty('disabled', true)
    expect(screen.getByText(/findings stand between this visit and sign-off/)).toBeDefined()
  })

  /** A visit that can be signed. */
  const ready = () => {
    const log = complete()
    for (const [choice, answer] of [
      ['guest', 'no'],
      ['parental', 'no'],
      ['security', 'no'],
      ['updates', 'automatic'],
      ['lamp', 'bright']
    ] as const)
      log.write('choice.answered', { choice, answer })
    log
      .write('custody.answered', { custody: 'customer-only-now' })
      .write('rule.answered', { rule: 'hand-cautions', answer: 'yes' })
    return log.write('pack.made', { digest: packDigest(log.record()) }).write('pack.given', { how: 'printed' })
  }

  it('a signature is under the very record on the screen', async () => {
    const log = ready()
    show(log, <SignOff />)
    await user.click(screen.getByRole('button', { name: 'Sign as customer' }))
    await user.click(screen.getByRole('button', { name: 'Sign' }))
    expect(written('signature.given')).toMatchObject([
      { who: 'customer', name: 'Cressa Oakum', digest: signedDigest(log.record()) }
    ])
  })

  const signed = () => {
    const log = ready()
    const digest = signedDigest(log.record())
    for (const who of ['customer', 'technician'] as const)
      log.write('signature.given', { who, name: 'A', strokes: 'M1 1 L2 2', digest })
    return { log, digest }
  }
  const sent = () => asked.filter(({ method }) => method === 'POST')

  it('sealing says that it is final before it is done', async () => {
    const { log, digest } = signed()
    show(log, <SignOff />)
    answers.set(
      '/seal',
      json({ title: 'The record changed while you were about to seal it. Look at it again.', status: 409 }, 409)
    )
    await user.click(screen.getByRole('button', { name: 'Seal this visit' }))
    expect(sent()).toEqual([])
    expect(screen.getByText(/Sealing is final/)).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Seal it for good' }))
    expect(sent()).toMatchObject([{ method: 'POST', body: { digest } }])
    expect((await screen.findByRole('alert')).textContent).toContain('changed while you were about to seal it')
  })

  it('what holds is shown with the lines it rests on', async () => {
    const log = ready()
    show(log, <SignOff />)
    useVisit.setState({ entries: log.entries as Entry[] })
    expect(screen.getByRole('button', { name: '0 breaks' })).toHaveProperty('disabled', true)
    await user.click(screen.getByRole('button', { name: /^\d+ holds$/ }))
    const sheet = screen.getByRole('dialog', { name: 'What holds' })
    const start = within(sheet).getByRole('region', { name: 'Start up' })
    const [lamp] = within(start).getAllByText(/Seen: white, steady/)
    const item = within(lamp!.closest('li')!)
    await user.click(item.getByText('Rests on'))
    const lines = await item.findAllByRole('listitem')
    expect(lines.map(({ textContent }) => textContent)).toEqual([
      expect.stringMatching(/Hall router.*Isolde Marram/),
      expect.stringMatching(/Hall router: seen status white, steady Isolde Marram/)
    ])
  })

  it('what another device may hold is waited for, or it is said why not', async () => {
    const { log, digest } = signed()
    const device = { outbox: idOf('phone'), person: 'Corin Saltway', since: '2026-01-05T10:40:00Z' }
    let unheard = [device, { ...device, outbox: idOf('tablet') }]
    show(log, <SignOff />, {
      answers: {
        '/not-heard-from': () => json({ outboxes: unheard })(),
        '/seal': () => new Response(null, { status: 204 })
      }
    })
    await user.click(await screen.findByRole('button', { name: 'Look again' }))
    const notice = screen.getByRole('region', { name: 'Not heard from' })
    expect(
      within(notice).getAllByText(/A device of Corin Saltway has this visit and was last heard from/)
    ).toHaveLength(2)
    const seal = screen.getByRole('button', { name: 'Seal this visit' })
    expect(seal).toHaveProperty('disabled', true)
    unheard = [device]
    await user.click(screen.getByRole('button', { name: 'Look again' }))
    await waitFor(() => expect(within(notice).getAllByRole('listitem')).toHaveLength(1))
    expect(seal).toHaveProperty('disabled', true)
    await user.type(screen.getByRole('textbox', { name: 'Why without' }), ' It fell into the harbour. ')
    await user.click(seal)
    await user.click(screen.getByRole('button', { name: 'Seal it for good' }))
    expect(sent().at(-1)!.body).toEqual({ digest, outbox: idOf('outbox'), without: 'It fell into the harbour.' })
  })

  it('a lead is asked to look, with a remark', async () => {
    show(complete(), <SignOff />)
    await user.type(screen.getByRole('textbox', { name: 'Remark' }), 'One socket only.')
    await user.click(screen.getByRole('button', { name: 'Ask a lead to look' }))
    expect(written('review.asked')).toEqual([{ remark: 'One socket only.' }])
  })
})
