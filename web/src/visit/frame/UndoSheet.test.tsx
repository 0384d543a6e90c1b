import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Placed } from '@pasado/core/record/entry'
import { fold } from '@pasado/core/history/history'
import { complete, idOf, node, someone } from '@pasado/testing/logbook'
import { useVisit } from '../session/visit-state'
import { undo, write } from '../session/write'
import { answers, show, written } from '../../../test/stage'
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
