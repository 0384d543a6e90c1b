import { ask } from '../app/api'
import { useOutbox } from './outbox'

/** Visits that are open here: they go on being written in. */
const open = new Set<string>()

/** Tells that a visit is open on this device; gives what to do when it is left. */
export function noteOpen(visit: string): () => void {
  open.add(visit)
  return () => {
    open.delete(visit)
    // Unless it is opened again at once.
    setTimeout(tellNothingWaits)
  }
}

/** What is said of the outbox of who is here; null where nobody is, or nothing can be said. */
function word(): { id: string; but: string[] } | null {
  const { id, owner, rows, stuckSince } = useOutbox.getState()
  if (!owner || stuckSince !== null) return null
  const waiting = rows.flatMap((row) => (row.owner?.id === owner.id ? [row.visit] : []))
  return { id, but: [...new Set([...waiting, ...open])] }
}

/** Says that nothing written here waits, but for visits of which something does, and those that are open. Where it cannot be said, the company goes on asking for this device. */
export function tellNothingWaits(): void {
  const said = word()
  if (said)
    void ask('POST /outboxes/:id/nothing-waits', { params: { id: said.id }, body: { but: said.but } }).catch(
      () => undefined
    )
}

/** Says the same as the page is closed; there is no waiting for an answer then. */
export function tellAsClosed(): void {
  open.clear()
  const said = word()
  if (said && typeof navigator.sendBeacon === 'function')
    navigator.sendBeacon(
      `/api/outboxes/${said.id}/nothing-waits`,
      new Blob([JSON.stringify({ but: said.but })], { type: 'application/json' })
    )
}
