import { Worker } from 'node:worker_threads'

/** A thread beside the one that serves, which answers each `{ id, what }` by `{ id, answer }`. */
export interface AskingThread<Q, A> {
  /** Rejected where the thread fails; the next question begins with a new one. */
  ask: (what: Q) => Promise<A>
  /** How many wait for an answer. */
  waiting: () => number
  /** Ends it, whatever it is at. */
  end: () => Promise<void>
}

/**
 * One thread for the process, begun when it is first asked; while nobody waits for it, it does not keep the process from ending.
 * @param script what runs in it
 */
export function askingThread<Q, A>(script: URL): AskingThread<Q, A> {
  let worker: Worker | null = null
  let asked = 0
  const waiting = new Map<number, { done: (answer: A) => void; failed: (error: unknown) => void }>()
  const begun = (): Worker => {
    const made = new Worker(script)
    made.on('message', ({ id, answer }: { id: number; answer: A }) => {
      waiting.get(id)?.done(answer)
      waiting.delete(id)
      if (waiting.size === 0) made.unref()
    })
    made.on('error', (error) => {
      worker = null
      for (const { failed } of waiting.values()) failed(error)
      waiting.clear()
    })
    return made
  }
  return {
    waiting: () => waiting.size,
    end: async () => {
      const ended = worker
      worker = null
      await ended?.terminate()
      for (const { failed } of waiting.values()) failed(new Error('the thread was ended'))
      waiting.clear()
    },
    ask: (what) =>
      new Promise((done, failed) => {
        const id = ++asked
        waiting.set(id, { done, failed })
        worker ??= begun()
        worker.ref()
        worker.postMessage({ id, what })
      })
  }
}
