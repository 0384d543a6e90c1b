import { fold } from '@pasado/core/history/fold'
import type { Draft, Placed } from '@pasado/core/record/entry'
import { judge } from '@pasado/core/rules/judged'
import { useSession } from '../../app/session'
import { lookAt, useOutbox, waits, type Look, type OutboxRow } from '../../outbox/outbox'
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

/** Shows the record with what is still on its way, and judges it; of a sealed visit what was said then. */
export function recompute(): void {
  const { id, confirmed, catalogue, standard, verdicts, judged: before } = useVisit.getState()
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
  const now = new Date().toISOString()
  const judged = record.seal && verdicts ? null : judge({ record, history }, catalogue, standard, { now }, before)
  useVisit.setState({
    pending,
    record,
    history,
    findings: judged?.findings ?? verdicts!,
    judged,
    saving: savingOf(pending.length)
  })
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
    else recompute()
  })
}
