import { act, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, it } from 'vitest'
import { complete, idOf, opened } from '@pasado/testing/logbook'
import { useSession } from '../../app/session'
import { show, written } from '../../../test/stage'
import { useVisit } from '../session/visit-state'
import { LogbookSheet } from './LogbookSheet'
import { WhoseVisit } from './WhoseVisit'

const user = userEvent.setup({ delay: null })
const corin = { id: idOf('corin'), name: 'Corin Saltway', login: 'corin', role: 'technician' as const }
const note = () => screen.queryByRole('note', { name: 'Somebody else has this visit' })

it('whoever has the visit, and a lead, is told nothing; another technician joins it with why', async () => {
  show(complete(), <WhoseVisit />)
  expect(note()).toBeNull()
  useSession.setState({ me: corin } as never)
  await user.click(await screen.findByRole('button', { name: 'Join it' }))
  await user.click(screen.getByRole('button', { name: 'Join' }))
  expect(screen.getByRole('alert').textContent).toBe('The reason is missing: say why.')
  await user.type(screen.getByRole('textbox', { name: 'Why' }), 'Two pairs of hands.')
  await user.click(screen.getByRole('button', { name: 'Join' }))
  expect(written('visit.joined')).toEqual([{ reason: 'Two pairs of hands.' }])
  useSession.setState({ me: { ...corin, role: 'lead' } } as never)
  expect(note()).toBeNull()
})

it('a line that was sent after the visit was handed on is told apart in the logbook', () => {
  const log = opened()
  const before = log.entries.length
  log.write('visit.handed', { technician: { id: corin.id, name: corin.name }, reason: 'She is ill.' })
  log.write('note.written', { text: 'The loft hatch sticks.' })
  Object.assign(log.entries.at(-1)!, { base: before })
  show(log, <LogbookSheet open onClose={() => undefined} />)
  act(() => useVisit.setState({ entries: log.entries as never }))
  expect(screen.getAllByText('sent after it was handed on')).toHaveLength(1)
})
