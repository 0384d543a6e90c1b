import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import { demoModels } from '@pasado/demo/models/all'
import { Bench } from './Calculators'
import { answers, json } from '../../test/stage'
import { view } from '../../test/view'

const user = userEvent.setup({ delay: null })
const at = (path: string) => view(<Bench />, '/bench/:page', path)
beforeEach(() => answers.clear())
const result = () => screen.getByRole('status', { name: 'What comes out' }).textContent

describe('Bench', () => {
  it('a wall: more of it takes more, and a thickness that cannot be is told', async () => {
    at('/bench/wall')
    const thickness = await screen.findByRole('textbox', { name: 'Thickness, mm' })
    const figure = () => Number(/([\d.]+)dB|([\d.]+) dB/.exec(result())![1] ?? /([\d.]+) dB/.exec(result())![1])
    const thin = figure()
    await user.clear(thickness)
    await user.type(thickness, '480')
    expect(figure()).toBeGreaterThan(thin)
    await user.clear(thickness)
    await user.type(thickness, '0')
    expect(screen.getByRole('alert').textContent).toContain('must be above 0')
  })

  it('a link: each wall takes its share, and it all adds up', async () => {
    at('/bench/link')
    await screen.findByText('Where it goes')
    const arrives = () => Number(/Arrives(-?[\d.]+) dBm/.exec(screen.getByRole('table').textContent)![1])
    const before = arrives()
    await user.click(screen.getByRole('button', { name: 'Add a wall' }))
    expect(arrives()).toBeLessThan(before)
    await user.click(screen.getByRole('button', { name: 'Take out wall 2' }))
    expect(arrives()).toBeCloseTo(before, 6)
    await user.clear(screen.getByRole('textbox', { name: 'Floors between' }))
    await user.type(screen.getByRole('textbox', { name: 'Floors between' }), '1,5')
    expect(screen.getByRole('alert').textContent).toContain('whole number')
  })

  it('a rate: a signal above zero is told, one too weak carries nothing', async () => {
    at('/bench/rate')
    const signal = await screen.findByRole('textbox', { name: 'Signal, dBm' })
    await user.clear(signal)
    await user.type(signal, '20')
    expect(screen.getByRole('alert').textContent).toContain('signals are below zero')
    await user.clear(signal)
    await user.type(signal, '−90')
    expect(result()).toContain('No rate holds')
  })

  it('addresses: the free one, what is wrong, and a range with bits behind its prefix', async () => {
    at('/bench/addresses')
    await waitFor(() => expect(result()).toContain('192.168.20.254'))
    expect(result()).toContain('camera')
    const range = screen.getByRole('textbox', { name: /^Range/ })
    await user.clear(range)
    await user.type(range, '192.168.20.7/24')
    expect(screen.getByRole('alert').textContent).toContain('the network itself is 192.168.20.0/24')
  })

  it('a passphrase is made and judged, a blank at the end of a name is told', async () => {
    at('/bench/qr')
    await user.type(await screen.findByRole('textbox', { name: /^Name/ }), 'Gull ')
    expect(screen.getByText(/5 of 32 octets; a blank at an end/)).toBeDefined()
    await user.click(screen.getByRole('button', { name: 'Make one' }))
    expect(await screen.findByText(/: 4 of 4/)).toBeDefined()
    expect(await screen.findByRole('img', { name: /QR code to join/ })).toBeDefined()
  })

  it('firmware: the path of a model of the catalogue', async () => {
    answers.set('/catalogue', json({ models: demoModels }))
    at('/bench/firmware')
    await user.selectOptions(
      await screen.findByRole('combobox', { name: 'Model' }),
      await screen.findByRole('option', { name: 'Ostrel Heron' })
    )
    expect(result()).toContain('2.8.1 → 3.0.2 → 3.1.0')
    await user.clear(screen.getByRole('textbox', { name: /^Runs now/ }))
    await user.type(screen.getByRole('textbox', { name: /^Runs now/ }), '3..1')
    expect(screen.getByRole('alert').textContent).toContain('Runs now')
  })
})
