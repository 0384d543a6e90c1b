import { fold } from '@pasado/core/history/fold'
import type { Draft, Placed } from '@pasado/core/record/entry'
import { useSession } from '../../app/session'
import { lookAt, useOutbox, waits, type Look, type OutboxRow } from '../../outbox/outbox'
import { judgeBeside } from './judge-beside'
import { useVisit, type Saving } from './visit-state'

/** Whether the server has a row already, as far as is known here. */
function isKnown({ item }: OutboxRow): boolean {
  const { entries, confirmed } = useVisit.getState()
  if (item.kind === 'line') return entries.some(({ id }) => id === item.draft.id)
  return item.kind === 'secret'
    ? Object.hasOwn(confirmed.record.secrets, item.ref)
    : Object.hasOwn(confirmed.record.photos ?? {}, item.ref)
}

/** The lines of the open visit that wait on this device, in order. */
function waitingLines(): Draft[] {
  const { id } = useVisit.getState()
  const { rows, owner } = useOutbox.getState()
  return rows.flatMap((row) =>
    row.visit === id && row.item.kind === 'line' && waits(row, owner) && !isKnown(row) ? [row.item.draft] : []
  )
}

/**
 * What has been seen of the open visit just now. Whoever looks at something and writes it down later takes it when they look: what
 * changes meanwhile they have not seen.
 */
export function takeLook(): Look {
  const { id, confirmed, entries } = useVisit.getState()
  const { id: outbox } = useOutbox.getState()
  return lookAt(id ?? '', confirmed.record, entries.filter(({ from }) => from === outbox).length, isKnown)
}

/**
 * Shows the record with what is still on its way, and has it judged beside the page; of a sealed visit what was said then. Before it is
 * judged for the first time it is not shown.
 * @returns once it is shown and judged
 */
export async function recompute(): Promise<void> {
  const { id, confirmed, verdicts, entries, catalogue, standard, durations, record: before } = useVisit.getState()
  if (id === null || confirmed.record.lastSeq === 0) return
  const me = useSession.getState().me
  const pending = waitingLines()
  const by = { id: me?.id ?? '', name: me?.name ?? '', role: me?.role ?? ('technician' as const) }
  const onItsWay = pending.map((draft, index): Placed => ({
    ...draft,
    by,
    seq: confirmed.record.lastSeq + 1 + index,
    received: draft.at
  }))
  const { record, history } = fold(onItsWay, confirmed)
  const shown = { pending, record, history, saving: savingOf(pending.length) }
  if (record.seal && verdicts) {
    useVisit.setState({ ...shown, findings: verdicts, works: [], judgedRecord: record, judging: false })
    return
  }
  const isShown = before.lastSeq > 0
  if (isShown) useVisit.setState({ ...shown, judging: true })
  const asked = judgeBeside({ entries, pending: onItsWay, catalogue, standard, durations })
  // Where the rules do not come the seal waits for them; what is not shown yet is not shown.
  const said = await (isShown ? asked.catch(() => null) : asked)
  // What is open by now may be another visit, or this one with more in it: then that is asked of.
  const { id: openNow, record: recordNow, confirmed: confirmedNow } = useVisit.getState()
  if (said === null || openNow !== id || (isShown ? recordNow !== record : confirmedNow !== confirmed)) return
  useVisit.setState({ ...(isShown ? {} : shown), ...said, judgedRecord: record, judging: false })
}

function savingOf(pending: number): Saving {
  if (pending === 0) return 'saved'
  return useOutbox.getState().stuckSince !== null ? 'not saved yet' : 'saving'
}

/** Keeps the record in step with the outbox: another tab may write or send, and what is refused is shown no more. @returns ends it */
export function followOutbox(): () => void {
  return useOutbox.subscribe(({ rows, owner, stuckSince }, before) => {
    if (rows === before.rows && owner === before.owner && stuckSince === before.stuckSince) return
    const { pending } = useVisit.getState()
    const waiting = waitingLines()
    // A line that leaves the outbox was taken in from the logbook before: the record is what it was, and is not judged again.
    if (waiting.length === pending.length && waiting.every(({ id }, at) => id === pending[at]!.id))
      useVisit.setState({ saving: savingOf(pending.length) })
    else void recompute()
  })
}
