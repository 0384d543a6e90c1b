import { create } from 'zustand'

/** What could not be worked out last, for the bar that tells it; null where nothing failed, or it was put away. */
export const useFailedWork = create<{ what: string | null }>(() => ({ what: null }))

/** That a worker broke off what it was asked. */
export class WorkFailed extends Error {}

interface Answered<A> {
  id: number
  answer: A
}

/** A worker that is asked things, and is started when it is first needed. */
export interface Asking<Q, A> {
  /** @throws WorkFailed where it broke off */
  ask: (what: Q, moved?: Transferable[]) => Promise<A>
  /** Only the newest question is answered: what is typed or dragged does not wait for the ones before. */
  newest: (what: Q, onAnswer: (answer: A) => void) => void
}

/**
 * Asks a worker that answers each `{ id, what }` by `{ id, answer }`. One that fails is told of, whoever waits for it is told that
 * nothing comes, and the next question begins with a new one.
 * @param what it works out, in words that “could not be worked out” follows; null where whoever asks does without, and nobody is told
 */
export function asking<Q, A>(what: string | null, start: () => Worker): Asking<Q, A> {
  let worker: Worker | null = null
  let asked = 0
  let newest = 0
  const waiting = new Map<number, { done: (answer: A) => void; failed: (error: WorkFailed) => void }>()
  const fail = (broken: Worker) => {
    if (worker === broken) worker = null
    broken.terminate()
    if (what !== null) useFailedWork.setState({ what })
    const left = [...waiting.values()]
    waiting.clear()
    for (const { failed } of left) failed(new WorkFailed(`${what ?? 'It'} could not be worked out`))
  }
  const started = (): Worker => {
    const worker = start()
    worker.addEventListener('message', ({ data: { id, answer } }: MessageEvent<Answered<A>>) => {
      waiting.get(id)?.done(answer)
      waiting.delete(id)
    })
    worker.addEventListener('error', () => fail(worker))
    worker.addEventListener('messageerror', () => fail(worker))
    return worker
  }
  const ask = (question: Q, moved: Transferable[] = []) =>
    new Promise<A>((done, failed) => {
      const id = ++asked
      waiting.set(id, { done, failed })
      worker ??= started()
      worker.postMessage({ id, what: question }, moved)
    })
  return {
    ask,
    newest: (question, onAnswer) => {
      const mine = ++newest
      ask(question).then(
        (answer) => {
          if (mine === newest) onAnswer(answer)
        },
        // Told by the bar.
        () => undefined
      )
    }
  }
}
