/** One try at sending something: it is given up where nothing has moved for a while. */
export interface Attempt {
  /** Told when the try is given up. */
  signal: AbortSignal
  /** Something moved: it is waited for anew. */
  moved: () => void
  /** The try ended, whichever way. */
  end: () => void
}

/** For how long nothing may move. A phone that changes from one network to another leaves calls behind that nobody ever answers. */
export const patience = { ms: 20_000 }
const under = new Set<AbortController>()

/** Begins a try. */
export function attempt(): Attempt {
  const controller = new AbortController()
  under.add(controller)
  let timer: ReturnType<typeof setTimeout> | undefined
  const moved = () => {
    clearTimeout(timer)
    timer = setTimeout(() => controller.abort(), patience.ms)
  }
  moved()
  return {
    signal: controller.signal,
    moved,
    end: () => {
      clearTimeout(timer)
      under.delete(controller)
    }
  }
}

/** Gives up what is under way: the connection it was begun on may be gone. What it sends is taken once, however often it is sent. */
export function giveUpAttempts(): void {
  for (const controller of under) controller.abort()
}
