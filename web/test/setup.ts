import { cleanup } from '@testing-library/react'
import { beforeEach, vi } from 'vitest'
import { reads } from '../src/app/read'

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
vi.mock('../src/workers/strength', () => ({
  strengthOf: (value: string) =>
    Promise.resolve({ score: value.length > 12 ? 4 : 1, bits: value.length * 3, warning: '' })
}))
