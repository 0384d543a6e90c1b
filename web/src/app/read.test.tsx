import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { reads, useRead } from './read'
import { useSession } from './session'
import { Loaded } from '../ui/Loaded'
import { answers, asked, json } from '../../test/stage'

const technicians = (name: string) => json({ technicians: [{ id: '1', name }] })
const me = { id: 'a', login: 'a', name: 'A', role: 'lead' } as const

function Names({ when = true }: { when?: boolean }) {
  const read = useRead('GET /technicians', {}, { when, otherwise: 'They could not be loaded.' })
  return (
    <Loaded read={read} waiting="Looking …">
      {({ technicians: all }) => (
        <>
          <p>{all.map(({ name }) => name).join()}</p>
          {read.problem && <p role="alert">{read.problem}</p>}
          <button type="button" onClick={() => void read.again()}>
            Again
          </button>
        </>
      )}
    </Loaded>
  )
}

afterEach(() => {
  cleanup()
  answers.clear()
  asked.length = 0
  vi.useRealTimers()
})

describe('what is read', () => {
  it('is said to be on its way, then shown; two that show it ask once', async () => {
    answers.set('/technicians', technicians('Isolde Marram'))
    const { unmount } = render(
      <>
        <Names />
        <Names />
      </>
    )
    expect(screen.getAllByRole('status')).toHaveLength(2)
    expect(await screen.findAllByText('Isolde Marram')).toHaveLength(2)
    expect(asked).toHaveLength(1)
    unmount()
  })

  it('is not asked for before it is wanted', async () => {
    answers.set('/technicians', technicians('Isolde Marram'))
    const { rerender } = render(<Names when={false} />)
    expect([screen.getByRole('status').textContent, asked]).toEqual(['Looking …', []])
    rerender(<Names />)
    expect(await screen.findByText('Isolde Marram')).toBeDefined()
  })

  it('and refused, is told and not asked for again; away, it is asked for again by itself', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true })
    answers.set('/technicians', json({ title: 'Only a lead sees that.', status: 403 }, 403))
    const { unmount } = render(<Names />)
    expect((await screen.findByRole('alert')).textContent).toBe('Only a lead sees that.')
    await vi.advanceTimersByTimeAsync(10_000)
    expect(asked).toHaveLength(1)
    unmount()
    answers.set('/technicians', json({ title: 'Not now.', status: 503 }, 503))
    render(<Names />)
    expect((await screen.findByRole('alert')).textContent).toBe('Not now.')
    answers.set('/technicians', technicians('Corin Tarn'))
    await vi.advanceTimersByTimeAsync(3_100)
    expect(await screen.findByText('Corin Tarn')).toBeDefined()
    expect(screen.queryByRole('alert')).toBeNull()
  })

  it('but once is read by each for itself: what another read before it is not built upon', async () => {
    answers.set('/technicians', technicians('Isolde Marram'))
    function Once() {
      const { value } = useRead('GET /technicians', {}, { once: true })
      return <p>once {value?.technicians.map(({ name }) => name).join()}</p>
    }
    const { rerender } = render(<Names />)
    await screen.findByText('Isolde Marram')
    answers.set('/technicians', technicians('Corin Tarn'))
    // In the very moment in which the other goes.
    rerender(<Once />)
    expect(await screen.findByText('once Corin Tarn')).toBeDefined()
  })

  it('stays on the screen where reading it again fails, and the failure is told beside it', async () => {
    answers.set('/technicians', technicians('Isolde Marram'))
    render(<Names />)
    await screen.findByText('Isolde Marram')
    answers.set('/technicians', json({ title: 'Gone wrong.', status: 404 }, 404))
    screen.getByRole('button', { name: 'Again' }).click()
    expect((await screen.findByRole('alert')).textContent).toBe('Gone wrong.')
    expect(screen.getByText('Isolde Marram')).toBeDefined()
  })

  it('is gone when somebody logs out: the next person is shown nothing of it', async () => {
    answers.set('/technicians', technicians('Isolde Marram'))
    useSession.setState({ me })
    render(<Names />)
    await screen.findByText('Isolde Marram')
    expect(reads.getQueryCache().getAll()).toHaveLength(1)
    useSession.setState({ me: null })
    expect(reads.getQueryCache().getAll()).toHaveLength(0)
  })
})
