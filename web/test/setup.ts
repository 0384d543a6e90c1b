import { cleanup } from '@testing-library/react'
import { beforeEach, vi } from 'vitest'
import { reads } from '../src/app/read'
import type { BecauseAsk } from '../src/workers/because.worker'

// Most tests share a worker's world: what one left on the page, or asked for and nobody answered, is not the next one's.
beforeEach(() => {
  cleanup()
  reads.clear()
  sessionStorage.clear()
  localStorage.clear()
})

// What only a browser has.
vi.stubGlobal(
  'ResizeObserver',
  class {
    observe() {}
    unobserve() {}
    disconnect() {}
  }
)
vi.stubGlobal('CSS', { escape: (text: string) => text })
Element.prototype.scrollIntoView = () => undefined
Element.prototype.hasPointerCapture = () => false

// What no browser is there for: a surface to sign on, and a worker that judges passphrases.
vi.mock('signature_pad', () => ({
  default: class {
    addEventListener() {}
    off() {}
    toData() {
      return [
        {
          points: [
            { x: 1, y: 2 },
            { x: 30, y: 40 }
          ]
        }
      ]
    }
    clear() {}
  }
}))
// What is worked out beside the screen is worked out at once.
vi.mock('../src/workers/because', async () => {
  const { becauseOf } = await import('@pasado/core/rules/because')
  return {
    askBecause: ({ entries, finding, catalogue, standard, now }: BecauseAsk) =>
      Promise.resolve(becauseOf(entries, finding, catalogue, standard, now))
  }
})
vi.mock('../src/workers/strength', () => ({
  strengthOf: (value: string) =>
    Promise.resolve({ score: value.length > 12 ? 4 : 1, bits: value.length * 3, warning: '' })
}))
