import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { useVisit } from '../session/visit-state'
import { Docket } from './Docket'
import { LogbookSheet } from './LogbookSheet'
import { OutboxBar } from '../../outbox/OutboxBar'
import { useOutbox } from '../../outbox/outbox'
import { Strand } from './Strand'
import { VisitHead } from './VisitHead'
import { SignOff } from '../stages/sign-off/SignOff'
import { complete, idOf, mixed, node, opened, router } from '@pasado/testing/logbook'
import { currentAddress, show, written } from '../../../test/stage'

const user = userEvent.setup()

describe('around the work', () => {
  it('the docket is heaviest first and goes to the place of each line', async () => {
    show(complete().write('unit.set', { id: node, set: { firmwareAfter: '2.8.1' } }), <Docket />)
    const lines = screen.getAllByRole('listitem').map((line) => line.textContent)
    expect(lines[0]).toContain('Study node: firmware approved')
    await user.click(screen.getByRole('button', { name: /Study node: firmware approved/ }))
    expect(currentAddress()).toContain(`/configure?at=unit.${node}.firmwareAfter&unit=${node}`)
  })

  it('a lead waives with a reason, and takes it back; a technician acknowledges what should be', async () => {
    show(mixed(), <Docket />, { role: 'lead' })
    await user.click(screen.getByRole('button', { name: 'Waive: Mesh family' }))
    await user.click(await screen.findByRole('button', { name: 'Waive this rule' }))
    expect(screen.getByRole('alert').textContent).toContain('A reason is missing')
    await user.type(await screen.findByRole('textbox', { name: 'Reason' }), 'It is one family.')
    await user.click(await screen.findByRole('button', { name: 'Waive this rule' }))
    expect(written('waiver.granted')).toEqual([{ rule: 'kit-family', reason: 'It is one family.' }])
    await user.click(await screen.findByRole('button', { name: 'Withdraw the waiver: Mesh family' }))
    await user.click(await screen.findByRole('button', { name: 'Withdraw the waiver' }))
    expect(written('waiver.withdrawn')).toEqual([{ rule: 'kit-family' }])
    show(mixed(), <Docket />)
    expect(screen.queryByRole('button', { name: /^Waive/ })).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Acknowledge: Mesh family' }))
    await user.type(await screen.findByRole('textbox', { name: 'Reason' }), 'On purpose.')
    await user.click(screen.getByRole('button', { name: 'Acknowledge this' }))
    expect(written('rule.acknowledged')).toEqual([{ rule: 'kit-family', reason: 'On purpose.' }])
  })

  it('of two bands of a unit one is waived, and the other not by it', async () => {
    const log = complete()
    for (const band of ['2.4', '5'] as const)
      log.write('radio.set', { id: idOf(`r${band}`), set: { unit: router, band, channel: 14, widthMHz: 20 } })
    show(log, <Docket />, { role: 'lead' })
    await user.click(screen.getByRole('button', { name: 'Waive: Hall router, 5 GHz: channel' }))
    await user.type(await screen.findByRole('textbox', { name: 'Reason' }), 'Their camera wants it.')
    await user.click(await screen.findByRole('button', { name: 'Waive this rule' }))
    const named = 'Hall router, 5 GHz'
    expect(written('waiver.granted')).toEqual([
      { rule: 'radio-channel', subject: router, named, reason: 'Their camera wants it.' }
    ])
    expect(screen.getByRole('button', { name: 'Waive: Hall router, 2.4 GHz: channel' })).toBeDefined()
    await user.click(await screen.findByRole('button', { name: /^Withdraw the waiver: Hall router, 5 GHz/ }))
    await user.click(await screen.findByRole('button', { name: 'Withdraw the waiver' }))
    expect(written('waiver.withdrawn')).toEqual([{ rule: 'radio-channel', subject: router, named }])
  })

  it('what a rule has against several things is acknowledged for one, or for all with one reason', async () => {
    const low = () =>
      [router, node].reduce((log, id) => log.write('unit.set', { id, set: { heightM: 0.3 } }), complete())
    for (const [withOthers, subjects] of [
      [false, [node]],
      [true, [node, router]]
    ] as const) {
      show(low(), <Docket />)
      await user.click(screen.getByRole('button', { name: 'Acknowledge: Study node: height' }))
      await user.type(await screen.findByRole('textbox', { name: 'Reason' }), 'On the skirting.')
      if (withOthers) await user.click(screen.getByRole('checkbox', { name: 'for Hall router as well' }))
      await user.click(screen.getByRole('button', { name: 'Acknowledge this' }))
      expect(written('rule.acknowledged')).toEqual(
        subjects.map((subject) => ({ rule: 'place-height', subject, reason: 'On the skirting.' }))
      )
    }
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
    show(complete().write('unit.set', { id: node, set: { adapterVolts: 19 } }), <Strand visit="x" here="kit" />)
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
