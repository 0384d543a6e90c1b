import { act, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Placed } from '@pasado/core/record/entry'
import { fold } from '@pasado/core/history/fold'
import { complete, idOf, node, someone } from '@pasado/testing/logbook'
import { useVisit } from '../session/visit-state'
import { undo, write } from '../session/write'
import { answers, show, written } from '../../../test/stage'
import { LogbookSheet } from './LogbookSheet'
import { UndoSheet } from './UndoSheet'

const user = userEvent.setup()
beforeEach(() => answers.clear())

/** Somebody else’s line comes in, who has seen all that stands here. */
function comesIn(name: string): void {
  const { record, history } = useVisit.getState()
  const line = {
    id: idOf('theirs'),
    visit: record.visit.id,
    at: '2026-01-05T12:00:00.000Z',
    from: idOf('other'),
    base: record.lastSeq,
    kind: 'unit.set',
    body: { id: node, set: { name } },
    by: { ...someone, id: idOf('corin'), name: 'Corin Saltway' },
    seq: record.lastSeq + 1,
    received: '2026-01-05T12:00:00.000Z'
  } as Placed
  useVisit.setState(fold([line], { record, history }))
}

describe('taking a change back', () => {
  it('is done at once while it stands', () => {
    show(complete(), <UndoSheet />)
    write('unit.set', { id: node, set: { name: 'Loft node' } })
    undo()
    expect(written('unit.set').at(-1)).toEqual({ id: node, set: { name: 'Study node' } })
  })

  it('is asked where somebody else has set the same since, and not done unless it is said', async () => {
    show(complete(), <UndoSheet />)
    write('unit.set', { id: node, set: { name: 'Loft node' } })
    comesIn('Garage node')
    undo()
    expect(await screen.findByText(/Corin Saltway set the same since/)).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Leave it as it is' }))
    expect(written('unit.set')).toHaveLength(1)
  })
})

describe('what was never so', () => {
  it('is a press that is undone', () => {
    show(complete(), <UndoSheet />)
    write('unit.event', { unit: node, what: 'reset' })
    const { events } = useVisit.getState().record.units[node]!
    expect(events.at(-1)!.what).toBe('reset')
    undo()
    expect(written('slip.undone')).toMatchObject([{ kind: 'unit.event', unit: node, what: 'reset' }])
    expect(useVisit.getState().record.units[node]!.events).toHaveLength(events.length - 1)
  })

  it('is taken back from the logbook, in words, once it is said', async () => {
    const log = complete().write('unit.set', { id: node, set: { name: 'Loft node' } })
    show(log, <LogbookSheet open onClose={() => undefined} />)
    act(() => useVisit.setState({ entries: log.entries as never }))
    await user.click(screen.getByRole('button', { name: `It was never so: line ${log.entries.length}` }))
    expect(written('slip.undone')).toEqual([])
    await user.click(screen.getByRole('button', { name: 'It was never so' }))
    expect(written('unit.set')).toEqual([{ id: node, set: { name: 'Study node' } }])
    expect(written('slip.undone')).toMatchObject([{ undoes: log.entries.at(-1)!.id, kind: 'unit.set' }])
    expect(screen.getByText('taken back: it was never so')).toBeDefined()
    expect(screen.queryByRole('button', { name: `It was never so: line ${log.entries.length}` })).toBeNull()
  })

  it('is not offered of what somebody else wrote, nor to whoever only looks on', () => {
    const log = complete().write('unit.event', { unit: node, what: 'moved' }, { by: { ...someone, id: idOf('other') } })
    show(log, <LogbookSheet open onClose={() => undefined} />)
    act(() => useVisit.setState({ entries: log.entries as never }))
    expect(screen.queryByRole('button', { name: `It was never so: line ${log.entries.length}` })).toBeNull()
    expect(screen.getAllByRole('button', { name: /^It was never so: line/ }).length).toBeGreaterThan(10)
    show(log, <LogbookSheet open onClose={() => undefined} />, { role: 'office' })
    act(() => useVisit.setState({ entries: log.entries as never }))
    expect(screen.queryByRole('button', { name: /^It was never so: line/ })).toBeNull()
  })
})
