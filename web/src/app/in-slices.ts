/** So long a press may be kept waiting by work that is done in slices, ms; a single step may take longer. */
const SLICE_MS = 12

/** Does work step by step, and lets the page do what it has to in between. @returns what the work comes to */
export async function inSlices<T>(steps: Iterator<unknown, T>): Promise<T> {
  let until = performance.now() + SLICE_MS
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
    if (performance.now() < until) continue
    await pageHadItsTurn()
    until = performance.now() + SLICE_MS
  }
}

/** Once the page has done what waited: a message to oneself comes after that, and without the pause that timers take. */
const pageHadItsTurn = (): Promise<void> =>
  new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel()
    port1.onmessage = () => {
      port1.close()
      resolve()
    }
    port2.postMessage(null)
  })
