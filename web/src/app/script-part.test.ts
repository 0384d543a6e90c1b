import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { scriptPart } from './script-part'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
})

const lost = () => Promise.reject(new Error('Failed to fetch'))

it('a part of the program that did not come is asked for again', async () => {
  const load = vi.fn<() => Promise<string>>(lost)
  const found = scriptPart(load)
  await vi.advanceTimersByTimeAsync(4_500)
  load.mockResolvedValue('the stage')
  await vi.advanceTimersByTimeAsync(2_000)
  expect(await found).toBe('the stage')
  expect(load).toHaveBeenCalledTimes(4)
})

it('without a connection it is waited for, however long; with one it is told in the end', async () => {
  const online = vi.spyOn(navigator, 'onLine', 'get').mockReturnValue(false)
  const told = vi.fn()
  void scriptPart(lost).catch(told)
  await vi.advanceTimersByTimeAsync(600_000)
  expect(told).not.toHaveBeenCalled()
  online.mockReturnValue(true)
  await vi.advanceTimersByTimeAsync(2_000)
  expect(told).toHaveBeenCalledTimes(1)
})
