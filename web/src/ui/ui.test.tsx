import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter, Route, Routes, useLocation } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { Button } from './Button'
import { Field, Input, Select, TextArea } from './Field'
import { FileButton } from './FileButton'
import { Instead } from './Instead'
import { Heading, Page } from './Page'
import { Problem } from './Problem'
import { Waiting } from './Waiting'
import { usePart } from '../visit/frame/use-part'

afterEach(cleanup)
const user = userEvent.setup()

describe('a button', () => {
  it('submits no form unless it says so', async () => {
    const submitted = vi.fn((event: React.FormEvent) => event.preventDefault())
    render(
      <form onSubmit={submitted}>
        <Button>Look</Button>
        <Button type="submit" kind="main">
          Send
        </Button>
      </form>
    )
    await user.click(screen.getByRole('button', { name: 'Look' }))
    expect(submitted).not.toHaveBeenCalled()
    await user.click(screen.getByRole('button', { name: 'Send' }))
    expect(submitted).toHaveBeenCalledOnce()
  })

  it('that is not to be pressed is not', async () => {
    const pressed = vi.fn()
    render(
      <Button disabled onClick={pressed}>
        Seal
      </Button>
    )
    await user.click(screen.getByRole('button', { name: 'Seal' }))
    expect(pressed).not.toHaveBeenCalled()
  })
})

describe('a button for a file', () => {
  it('hands the file over, the same one a second time as well, and nothing where none was chosen', async () => {
    const files: string[] = []
    render(
      <FileButton accept=".json" onFile={(file) => files.push(file.name)}>
        From a file
      </FileButton>
    )
    const input = screen.getByLabelText<HTMLInputElement>('From a file')
    const house = new File(['{}'], 'house.json', { type: 'application/json' })
    await user.upload(input, house)
    await user.upload(input, house)
    await user.upload(input, [])
    expect(files).toEqual(['house.json', 'house.json'])
  })

  it('is called by another name where its words do not tell what the file is of', () => {
    render(
      <FileButton accept="text/plain" name="Dump of Hall point" onFile={() => undefined}>
        From a dump
      </FileButton>
    )
    expect(screen.getByLabelText('Dump of Hall point')).toBeDefined()
  })
})

describe('what is told', () => {
  it('a problem is an alert, by which its field can name it; without one nothing stands there', () => {
    const { container, rerender } = render(<Problem message="It is too long." id="name-wrong" />)
    expect(screen.getByRole('alert')).toHaveProperty('id', 'name-wrong')
    for (const says of [null, undefined, false, ''] as const) {
      rerender(<Problem message={says} />)
      expect(container.innerHTML).toBe('')
    }
  })

  it('waiting is a status', () => {
    render(<Waiting message="Loading the home …" />)
    expect(screen.getByRole('status').textContent).toBe('Loading the home …')
  })

  it('instead of a screen: why, as an alert where something failed, and the way back', () => {
    const { rerender } = render(<Instead message="It could not be loaded." alert />)
    expect(screen.getByRole('alert').textContent).toBe('It could not be loaded.')
    expect(screen.queryByRole('link')).toBeNull()
    rerender(
      <MemoryRouter>
        <Instead message="There is no such home." to="/homes" back="Back to the homes" />
      </MemoryRouter>
    )
    expect(screen.queryByRole('alert')).toBeNull()
    expect(screen.getByRole('link', { name: 'Back to the homes' }).getAttribute('href')).toBe('/homes')
  })
})

describe('the part of a stage', () => {
  const partOf = (at: string | null) => (at?.startsWith('wifi') ? 'wifi' : null)
  function Stage() {
    const [part, go] = usePart(partOf, 'addresses')
    return (
      <>
        <p>
          {part} {useLocation().search}
        </p>
        <Button onClick={() => go('firmware')}>Firmware</Button>
      </>
    )
  }
  const open = (address: string) =>
    render(
      <MemoryRouter initialEntries={[address]}>
        <Routes>
          <Route path="/" element={<Stage />} />
        </Routes>
      </MemoryRouter>
    )

  it('is the first until another is chosen, which its address then tells', async () => {
    open('/')
    expect(screen.getByText('addresses')).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Firmware' }))
    expect(screen.getByText('firmware ?part=firmware')).toBeDefined()
  })

  it('is that which holds the place that was gone to, whatever was open; the place stays in the address', async () => {
    open('/?part=firmware&at=wifi-name')
    expect(await screen.findByText('wifi ?part=wifi&at=wifi-name')).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Firmware' }))
    expect(screen.getByText('firmware ?part=firmware')).toBeDefined()
  })

  it('stays where a place is in no part', () => {
    open('/?part=firmware&at=room-1')
    expect(screen.getByText('firmware ?part=firmware&at=room-1')).toBeDefined()
  })
})

describe('a field', () => {
  it('names its box, and hands over what the box is given: a ref, that it is wrong, and why', async () => {
    const typed = vi.fn()
    let box: HTMLInputElement | null = null
    render(
      <Field label="Serial">
        <Input
          exact
          className="w-20"
          ref={(element) => {
            box = element
          }}
          aria-invalid
          aria-describedby="why"
          onChange={(event) => typed(event.target.value)}
        />
      </Field>
    )
    const input = screen.getByLabelText<HTMLInputElement>('Serial')
    expect([input, input.className, input.getAttribute('aria-describedby')]).toEqual([box, 'box exact w-20', 'why'])
    await user.type(input, '7')
    expect(typed).toHaveBeenCalledWith('7')
  })

  it('of a list, or of several lines, is named as well', () => {
    render(
      <>
        <Field label="Security">
          <Select defaultValue="wpa3">
            <option>wpa2</option>
            <option>wpa3</option>
          </Select>
        </Field>
        <Field label="Remark">
          <TextArea defaultValue="Shed." />
        </Field>
      </>
    )
    expect(screen.getByRole('combobox', { name: 'Security' })).toHaveProperty('value', 'wpa3')
    expect(screen.getByRole('textbox', { name: 'Remark' })).toHaveProperty('value', 'Shed.')
  })
})

describe('a page', () => {
  it('names itself in the browser, and keeps the name it was given where it says none', () => {
    const { rerender } = render(
      <Page title="Homes" width="list">
        <Heading>Homes</Heading>
      </Page>
    )
    expect([document.title, screen.getByRole('heading', { level: 1 }).textContent]).toEqual(['Homes · Pasado', 'Homes'])
    rerender(<Page width="list">Another</Page>)
    expect(document.title).toBe('Homes · Pasado')
  })
})
