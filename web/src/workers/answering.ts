/** The worker's side of `asking`: answers each question by what a function makes of it. What it throws fails the worker, which is told. */
export function answering<Q, A>(
  answer: (what: Q) => A | Promise<A>,
  moved: (answer: A) => Transferable[] = () => []
): void {
  addEventListener('message', ({ data: { id, what } }: MessageEvent<{ id: number; what: Q }>) => {
    const tell = (told: A) => postMessage({ id, answer: told }, { transfer: moved(told) })
    const told = answer(what)
    if (told instanceof Promise)
      // A rejection is no error of the worker's own: it is made one.
      told.then(tell).catch((error: unknown) =>
        setTimeout(() => {
          throw error
        })
      )
    else tell(told)
  })
}
