import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { packDigest, signedDigest } from '@pasado/core/record/seal'
import { useVisit } from '../src/visit/session/visit-state'
import { Docket } from '../src/visit/frame/Docket'
import { LogbookSheet } from '../src/visit/frame/LogbookSheet'
import { OutboxBar } from '../src/outbox/OutboxBar'
import { useOutbox } from '../src/outbox/outbox'
import { Strand } from '../src/visit/frame/Strand'
import { VisitHead } from '../src/visit/frame/VisitHead'
import { HandOver } from '../src/visit/stages/hand-over/HandOver'
import { SignOff } from '../src/visit/stages/sign-off/SignOff'
import { complete, network, node, opened } from '../../core/test/fixture'
import { answers, asked, currentAddress, json, show, written } from './stage'

vi.mock('idb-keyval', () => import('./idb'))
vi.mock('signature_pad', () => ({
  default: class {
    addEventListener() {}
    off() {}
    toData() {
      return [
        {
          points: [
            { x: 1, y: 2 },
            { x: 30, y: 40 }
          ]
        }
      ]
    }
    clear() {}
  }
}))
vi.mock('../src/workers/strength', () => ({
  strengthOf: (value: string) =>
    Promise.resolve({ score: value.length > 12 ? 4 : 1, bits: value.length * 3, warning: '' })
}))

const user = userEvent.setup()
beforeEach(() => {
  sessionStorage.clear()
})

const chip = (group: string, name: string) =>
  within(screen.getByRole('radiogroup', { name: group })).getByRole('radio', { name })

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
    const log = complete().write('rule.acknowledged', { rule: 'kit-family', reason: 'On purpose.' })
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

  it('sealing says that it is final before it is done', async () => {
    const log = ready()
    const digest = signedDigest(log.record())
    for (const who of ['customer', 'technician'] as const)
      log.write('signature.given', { who, name: 'A', strokes: 'M1 1 L2 2', digest })
    show(log, <SignOff />)
    answers.set(
      '/seal',
      json({ title: 'The record changed while you were about to seal it. Look at it again.', status: 409 }, 409)
    )
    await user.click(screen.getByRole('button', { name: 'Seal this visit' }))
    expect(asked).toEqual([])
    expect(screen.getByText(/Sealing is final/)).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Seal it for good' }))
    expect(asked).toMatchObject([{ method: 'POST', body: { digest } }])
    expect((await screen.findByRole('alert')).textContent).toContain('changed while you were about to seal it')
  })

  it('a lead is asked to look, with a remark', async () => {
    show(complete(), <SignOff />)
    await user.type(screen.getByRole('textbox', { name: 'Remark' }), 'One socket only.')
    await user.click(screen.getByRole('button', { name: 'Ask a lead to look' }))
    expect(written('review.asked')).toEqual([{ remark: 'One socket only.' }])
  })
})

describe('around the work', () => {
  it('the docket is heaviest first and goes to the place of each line', async () => {
    show(complete().write('unit.set', { id: node, set: { firmwareAfter: '2.8.1' } }), <Docket />)
    const lines = screen.getAllByRole('listitem').map((line) => line.textContent)
    expect(lines[0]).toContain('Study node: firmware approved')
    await user.click(screen.getByRole('button', { name: /Study node: firmware approved/ }))
    expect(currentAddress()).toContain(`/configure?at=unit.${node}.firmwareAfter&unit=${node}`)
  })

  it('a lead waives with a reason, and takes it back; a technician acknowledges what should be', async () => {
    show(complete(), <Docket />, { role: 'lead' })
    await user.click(screen.getByRole('button', { name: 'Waive: Mesh family' }))
    await user.click(screen.getByRole('button', { name: 'Waive this rule' }))
    expect(screen.getByRole('alert').textContent).toContain('A reason is missing')
    await user.type(screen.getByRole('textbox', { name: 'Reason' }), 'It is one family.')
    await user.click(screen.getByRole('button', { name: 'Waive this rule' }))
    expect(written('waiver.granted')).toEqual([{ rule: 'kit-family', reason: 'It is one family.' }])
    await user.click(screen.getByRole('button', { name: 'Withdraw the waiver: Mesh family' }))
    await user.click(screen.getByRole('button', { name: 'Withdraw the waiver' }))
    expect(written('waiver.withdrawn')).toEqual([{ rule: 'kit-family' }])
    show(complete(), <Docket />)
    expect(screen.queryByRole('button', { name: /^Waive/ })).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Acknowledge: Mesh family' }))
    await user.type(screen.getByRole('textbox', { name: 'Reason' }), 'On purpose.')
    await user.click(screen.getByRole('button', { name: 'Acknowledge this' }))
    expect(written('rule.acknowledged')).toEqual([{ rule: 'kit-family', reason: 'On purpose.' }])
  })

  it('a visit that is sealed while it is looked at shows its seal, and what was said then', async () => {
    show(complete(), <SignOff />)
    const { record } = useVisit.getState()
    const print = 'a'.repeat(64)
    useVisit.setState({
      record: {
        ...record,
        seal: {
          seq: 99,
          at: '2026-01-05T12:00:00Z',
          by: record.brief.meta.street!.by,
          chain: print,
          record: print,
          standard: print,
          catalogue: print,
          verdicts: print,
          key: 'k',
          signature: 's'
        }
      }
    })
    expect(await screen.findByRole('heading', { name: /^Sealed 5 January 2026/ })).toBeDefined()
    expect(screen.getByText('verdicts')).toBeDefined()
  })

  it('whoever does not have the visit is told who signs', () => {
    show(complete(), <SignOff />, { role: 'lead' })
    expect(screen.getByText(/has this visit: both sign on the device of whoever has it/)).toBeDefined()
    expect(screen.getByRole('button', { name: 'Sign as customer' })).toHaveProperty('disabled', true)
  })

  it('the strand tells how every stage stands', () => {
    show(complete(), <Strand visit="x" here="kit" />)
    const stops = screen.getAllByRole('link').map((stop) => stop.getAttribute('aria-label'))
    expect(stops).toEqual([
      '1 Brief: 4 hold',
      expect.stringContaining('2 Kit: 1 breaks'),
      expect.stringMatching(/^3 Place: \d+ hold/),
      expect.stringMatching(/^4 Connect: \d+ hold/),
      expect.stringMatching(/^5 Start up: \d+ hold/),
      expect.stringMatching(/^6 Configure: \d+ hold/),
      expect.stringMatching(/^7 Prove: \d+ hold/),
      '8 Hand over: 4 to prove',
      '9 Sign off: to sign'
    ])
    expect(screen.getByRole('link', { current: 'step' }).getAttribute('aria-label')).toContain('2 Kit')
  })

  it('the head tells what is not saved yet', () => {
    show(opened(), <VisitHead />)
    expect(screen.getByRole('status').textContent).toBe('saved · line 1')
    useVisit.setState({ saving: 'not saved yet', pending: [{}, {}] as never })
    return waitFor(() => expect(screen.getByRole('status').textContent).toBe('not saved yet · 2 kept here'))
  })

  it('what was refused is told with what was in it, until it is put away', async () => {
    show(opened(), <OutboxBar />)
    const { owner } = useOutbox.getState()
    useOutbox.setState({
      rows: [
        {
          key: 'row 1',
          owner,
          outbox: 'o',
          visit: 'v',
          street: '4 Lantern Rise',
          refused: 'It holds a secret.',
          item: { kind: 'line', draft: { id: 'x', kind: 'note.written', body: { text: 'my words' } } as never }
        }
      ]
    })
    expect((await screen.findByRole('alert')).textContent).toContain('my words')
    await user.click(screen.getByRole('button', { name: 'Put away' }))
    expect(screen.queryByRole('alert')).toBeNull()
  })

  it('the logbook says every line in words, newest first', () => {
    const log = complete().write('unit.event', { unit: node, what: 'restarted' })
    show(log, <LogbookSheet open onClose={() => undefined} />)
    useVisit.setState({ entries: log.entries as never })
    return waitFor(() => {
      const lines = screen.getAllByRole('listitem').map((line) => line.textContent)
      expect(lines[0]).toContain('Study node: restarted')
      expect(lines.at(-1)).toContain('Visit opened')
      expect(lines.some((line) => line.includes('admin password put into the vault'))).toBe(true)
    })
  })
})
