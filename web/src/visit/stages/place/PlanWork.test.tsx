import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { strongest } from '@pasado/core/work/plan/home-plan'
import { coverage } from '@pasado/core/radio/coverage'
import { suggestPlaces } from '@pasado/core/work/plan/suggest'
import { PlaceStage } from './PlaceStage'
import { undo } from '../../session/write'
import type { CoverageAnswer, CoverageAsk } from '../../../workers/coverage.worker'
import { complete, idOf, node, opened, router } from '@pasado/testing/logbook'
import { show, written } from '../../../../test/stage'

vi.mock('../../../workers/coverage', () => ({
  askCoverage: ({ senders, grids, walls, floors, exponent }: CoverageAsk, onAnswer: (answer: CoverageAnswer) => void) =>
    queueMicrotask(() =>
      onAnswer({
        storeys: grids.map(({ storey, grid }) => ({
          storey,
          grid,
          ...strongest(senders.map((sender) => coverage(sender, grid, walls, floors, exponent)))
        }))
      })
    )
}))
vi.mock('../../../workers/suggest', () => ({
  askSuggestions: (input: Parameters<typeof suggestPlaces>[0]) => Promise.resolve(suggestPlaces(input))
}))

const user = userEvent.setup()
const [ground, hall, study] = [idOf('ground'), idOf('hall'), idOf('study')]
const drawn = () =>
  complete()
    .write('storey.set', { id: ground, set: { name: 'Ground floor', floorM: 0, heightM: 2.5 } })
    .write('room.set', {
      id: hall,
      set: { name: 'Hall', storey: ground, x: 0, y: 0, widthM: 4, depthM: 3, listed: true }
    })
    .write('room.set', {
      id: study,
      set: { name: 'Study', storey: ground, x: 4, y: 0, widthM: 4, depthM: 3, listed: true }
    })
    .write('outlet.set', { id: idOf('o1'), set: { storey: ground, kind: 'mains', x: 3.5, y: 2.5 } })
    .write('unit.set', { id: router, set: { storey: ground, x: 1, y: 1 } })
const room = (name: string) => screen.getByRole('button', { name: new RegExp(`^${name}, `) })

describe('the plan', () => {
  it('a room is added by its size, on a storey of its own making where there is none; metres only', async () => {
    show(opened(), <PlaceStage />)
    await user.type(screen.getByRole('textbox', { name: 'Room' }), 'Hall')
    await user.type(screen.getByRole('textbox', { name: 'Width, m' }), '450')
    await user.type(screen.getByRole('textbox', { name: 'Depth, m' }), '3,5')
    expect(screen.getByRole('alert').textContent).toContain('enter metres')
    await user.clear(screen.getByRole('textbox', { name: 'Width, m' }))
    await user.type(screen.getByRole('textbox', { name: 'Width, m' }), '4,5')
    await user.click(screen.getByRole('button', { name: 'Add' }))
    const [storey] = written('storey.set')
    expect(written('room.set')).toEqual([
      {
        id: expect.any(String),
        set: { name: 'Hall', storey: storey!.id, listed: true, x: 0, y: 0, widthM: 4.5, depthM: 3.5 }
      }
    ])
    expect(screen.getByRole('button', { name: 'Hall, 4.5 by 3.5 metres' })).toBeDefined()
  })

  it('what stays is put into it beside the units, moved, and taken off it again, and stays in the visit', async () => {
    const theirs = idOf('theirs')
    show(drawn().write('stays.set', { id: theirs, set: { kind: 'router', name: 'Their router' } }), <PlaceStage />)
    await user.click(screen.getByRole('radio', { name: 'units' }))
    await user.click(screen.getByRole('radio', { name: 'Their router' }))
    const picture = screen.getByRole('group', { name: 'Plan of the storey' })
    picture.getBoundingClientRect = () => new DOMRect(0, 0, 800, 400)
    await user.pointer({ keys: '[MouseLeft]', target: picture, coords: { clientX: 400, clientY: 200 } })
    expect(written('stays.set')).toEqual([{ id: theirs, set: { storey: ground, x: 4, y: 2 } }])
    const mark = await screen.findByRole('button', { name: 'Stays: Their router' })
    mark.focus()
    await user.keyboard('{ArrowRight}')
    expect(written('stays.set')).toHaveLength(2)
    await user.click(
      within(screen.getByRole('region', { name: 'What is chosen' })).getByRole('button', {
        name: 'Take it off the plan'
      })
    )
    expect(screen.queryByRole('button', { name: 'Stays: Their router' })).toBeNull()
    expect(written('thing.removed')).toEqual([])
  })

  it('a room is moved by the arrow keys, and put back', async () => {
    show(drawn(), <PlaceStage />)
    room('Study').focus()
    await user.keyboard('{ArrowRight}{Shift>}{ArrowDown}{/Shift}')
    expect(written('room.set').map(({ set }) => set)).toEqual([
      { x: 4.1, y: 0 },
      { x: 4.1, y: 1 }
    ])
    undo()
    undo()
    expect(written('room.set').at(-1)!.set).toEqual({ x: 4, y: 0 })
  })

  it('what reaches each room is told against the floor, and the chosen room’s signal with its working', async () => {
    show(drawn(), <PlaceStage />)
    const rooms = await screen.findByRole('region', { name: 'Rooms' })
    expect(within(rooms).getAllByRole('img', { name: /worst -\d+ dBm, median -\d+ dBm, floor -67 dBm/ })).toHaveLength(
      2
    )
    room('Study').focus()
    expect((await screen.findByText(/from Hall router: sends 23 dBm/)).textContent).toMatch(
      /1 wall \d+ dB, 0 floors 0 dB/
    )
  })

  it('rooms that lie over each other are called out', () => {
    show(drawn().write('room.set', { id: study, set: { x: 2 } }), <PlaceStage />)
    expect(screen.getByRole('alert').textContent).toContain('Hall and Study lie over each other')
  })

  it('a reading teaches; one above zero is refused at its field', async () => {
    show(drawn(), <PlaceStage />)
    const readings = screen.getByRole('region', { name: 'Readings' })
    const signal = within(readings).getByRole('textbox', { name: 'Signal, dBm' })
    await user.type(signal, '20')
    await user.click(within(readings).getByRole('button', { name: 'Write it down' }))
    expect(within(readings).getByRole('alert').textContent).toContain('at most -10 dBm')
    await user.clear(signal)
    await user.type(signal, '−41')
    await user.selectOptions(within(readings).getByLabelText('Read in'), 'Study')
    await user.click(within(readings).getByRole('button', { name: 'Write it down' }))
    expect(written('reading.set')).toEqual([
      { id: expect.any(String), set: { room: study, unit: router, band: '5', dbm: -41 }, origin: 'measured' }
    ])
    expect(within(readings).getByRole('status').textContent).toContain('From 1 reading')
    await user.click(within(readings).getByRole('button', { name: 'Take out the reading: Study' }))
    expect(within(readings).queryByRole('status')).toBeNull()
  })

  it('places are proposed beside what the schools would do', async () => {
    show(drawn(), <PlaceStage />)
    await user.click(screen.getByRole('button', { name: 'Find the places' }))
    expect((await screen.findByRole('list', { name: 'Proposals' })).textContent).toContain('Every room holds')
    expect(screen.getByRole('table', { name: /school/ }).textContent).toContain(
      'halfway between the router and the weakest room'
    )
  })

  it('a unit is taken off the plan, and what is known of it stays', async () => {
    show(drawn(), <PlaceStage />)
    screen.getByRole('button', { name: 'Unit Hall router' }).focus()
    await user.click(await screen.findByRole('button', { name: 'Take it off the plan' }))
    expect(written('unit.set')).toEqual([{ id: router, set: { storey: null, x: null, y: null } }])
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Unit Hall router' })).toBeNull())
    expect(screen.getAllByText('Hall router').length).toBeGreaterThan(0)
  })

  it('is read by the office, and changed by nobody there', () => {
    show(drawn().write('unit.set', { id: node, set: { storey: ground, x: 6, y: 1 } }), <PlaceStage />, {
      role: 'office'
    })
    expect(screen.queryByRole('button', { name: 'Add a storey' })).toBeNull()
    expect(screen.queryByRole('radiogroup', { name: 'Tool' })).toBeNull()
    expect(room('Study')).toBeDefined()
  })
})
