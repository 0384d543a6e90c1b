import { scriptPart } from './script-part'

/** How long after a page was drawn the script of visits is loaded ahead, ms. */
const AHEAD_MS = 2_500
/** How long it is let alone between two parts of it, ms. */
const BETWEEN_MS = 150

/** The parts of the script of a visit, the ground before what stands on it: each is begun in a task of its own. */
const parts: readonly (() => Promise<unknown>)[] = [
  () => import('@pasado/core/record/facts'),
  () => import('@pasado/core/record/things/all'),
  () => import('@pasado/core/record/entries/all')
]

/** Loads the script of a visit part by part. */
export async function visitScript() {
  for (const part of parts) await scriptPart(part)
  return scriptPart(() => import('../visit/frame/Visit'))
}

/** Loads it while nothing is asked of the page, so that a visit opens at once. @returns ends it */
export function loadVisitAhead(): () => void {
  let isOver = false
  const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
  const load = async () => {
    await pause(AHEAD_MS)
    for (const part of [...parts, visitScript]) {
      if (isOver) return
      await part()
      await pause(BETWEEN_MS)
    }
  }
  // What does not come now comes when a visit is opened, or says then that it does not.
  load().catch(() => undefined)
  return () => {
    isOver = true
  }
}
