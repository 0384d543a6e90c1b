// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { forgetDrafts, useDraft } from './draft'
import { Brief } from '../visit/stages/brief/Brief'
import { RoomsProof } from '../visit/stages/prove/RoomsProof'
import { complete, study } from '@pasado/testing/logbook'
import { written, show } from '../../test/stage'

beforeEach(() => {
  cleanup()
})

function Field({ of }: { of: string }) {
  const [text, setText] = useDraft(`test ${of}`, '')
  return <input aria-label="Text" value={text} onChange={(event) => setText(event.target.value)} />
}
const box = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Text' })

describe('what is half typed', () => {
  it('is there again after a reload, each in its own place, and gone once it is emptied or somebody logs out', () => {
    const { rerender, unmount } = render(<Field of="a" />)
    fireEvent.change(box(), { target: { value: 'half a note' } })
    rerender(<Field of="b" />)
    expect(box().value).toBe('')
    fireEvent.change(box(), { target: { value: 'another' } })
    rerender(<Field of="a" />)
    expect(box().value).toBe('half a note')
    unmount()
    render(<Field of="a" />)
    expect(box().value).toBe('half a note')
    fireEvent.change(box(), { target: { value: '' } })
    expect(Object.keys(sessionStorage)).toEqual(['pasado-draft test b'])
    forgetDrafts()
    expect(sessionStorage).toHaveLength(0)
  })

  it('as a note survives, and goes when it is written down', () => {
    show(complete(), <Brief />)
    fireEvent.change(screen.getByLabelText('Note'), { target: { value: 'The loft is locked' } })
    show(complete(), <Brief />)
    expect(screen.getByLabelText<HTMLTextAreaElement>('Note').value).toBe('The loft is locked')
    fireEvent.click(screen.getByRole('button', { name: 'Write it down' }))
    expect(written('note.written')).toEqual([{ text: 'The loft is locked' }])
    show(complete(), <Brief />)
    expect(screen.getByLabelText<HTMLTextAreaElement>('Note').value).toBe('')
  })

  it('as a run survives; no unit and no band is taken for granted, and none that the unit lacks is offered', () => {
    const log = () =>
      complete()
        .write('thing.removed', { thing: 'measurement', id: '00000000-0000-4000-8000-6d7374000000' })
        .write('room.set', { id: study, set: { name: 'Study' } })
    const open = () => {
      show(log(), <RoomsProof onFault={() => undefined} />)
      fireEvent.click(screen.getByRole('button', { name: 'Measure Study' }))
    }
    open()
    expect(screen.getByLabelText<HTMLSelectElement>('Connected to').value).toBe('')
    fireEvent.change(screen.getByLabelText('Down, Mbit/s'), { target: { value: '212' } })
    open()
    expect(screen.getByLabelText<HTMLInputElement>('Down, Mbit/s').value).toBe('212')
    fireEvent.click(screen.getByRole('button', { name: 'Record this run' }))
    expect(screen.getByRole('alert').textContent).toContain('Choose the band')
    expect(written('measurement.set')).toEqual([])
    fireEvent.click(screen.getByRole('radio', { name: '5 GHz' }))
    fireEvent.click(screen.getByRole('button', { name: 'Record this run' }))
    expect(written('measurement.set')).toEqual([
      expect.not.objectContaining({ set: expect.objectContaining({ unit: expect.anything() as string }) as object })
    ])
  })
})
