/** The median of some figures. */
export function median(figures: readonly number[]): number {
  const sorted = figures.toSorted((a, b) => a - b)
  const middle = Math.floor(sorted.length / 2)
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2
}

/** Runs work several times after one to warm up. @returns milliseconds, the median */
export async function medianMs(times: number, work: () => unknown): Promise<number> {
  await work()
  const figures: number[] = []
  for (let run = 0; run < times; run++) {
    const began = performance.now()
    await work()
    figures.push(performance.now() - began)
  }
  return median(figures)
}

/** A line of the report. */
export function report(what: string, figure: string): void {
  console.log(`${what.padEnd(72)} ${figure}`)
}
