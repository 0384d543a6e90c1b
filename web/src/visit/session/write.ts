import { v7 as uuidv7 } from 'uuid'
import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import type { Draft, Placed } from '@pasado/core/record/entry'
import type { VisitRecord } from '@pasado/core/record/record'
import { inverseOf } from '@pasado/core/record/inverse'
import { localTime } from '../../app/local-time'
import { outboxOwned, putIn, useOutbox, type Look, type OutboxRow } from '../../outbox/outbox'
import { takeLook } from './record-now'
import { useVisit, type Undoable } from './visit-state'
import { othersSince } from '@pasado/core/history/since'
import { pressUndone, undoingOf } from '@pasado/core/history/slips'
import { isPress } from '@pasado/core/record/entries/slips'

/**
 * Writes an entry: shown at once, kept on the device, sent as soon as the server can be reached.
 * @param options.look what had been seen when the look was taken that it tells of; left out: now
 */
export function write<K extends EntryKind>(
  kind: K,
  body: Body<K>,
  options: { undoing?: boolean; look?: Look } = {}
): void {
  const { id, record, undoable } = useVisit.getState()
  if (!id) return
  if (!useOutbox.getState().owner) {
    // For a moment after somebody logged in it is not known which outbox is theirs.
    void outboxOwned().then(() => {
      if (useVisit.getState().id === id) write(kind, body, options)
    })
    return
  }
  const draft = {
    id: uuidv7(),
    visit: id,
    at: localTime(new Date()),
    from: useOutbox.getState().id,
    ...(options.look ?? takeLook()),
    kind,
    body
  } as Draft
  const inverse = options.undoing ? null : takingBack(draft, record)
  if (inverse) useVisit.setState({ undoable: [...undoable.slice(-49), { ...inverse, of: draft.id }] })
  putIn(id, record.brief.facts.street ?? '', { kind: 'line', draft })
}

/** What takes an entry back at once: its opposite; of a press, which has none, that it was never so. */
function takingBack({ id, kind, body, at }: Draft, record: VisitRecord) {
  return isPress(kind) ? pressUndone({ id, kind, body, at }) : inverseOf(kind, body, record)
}

/** A secret that goes to the vault as soon as the server can be reached; until then it is sealed on this device. */
export function secretForVault(
  body: Extract<OutboxRow['item'], { kind: 'secret' }>['body'],
  value: string,
  look = takeLook()
): void {
  const { id, record } = useVisit.getState()
  if (id)
    putIn(
      id,
      record.brief.facts.street ?? '',
      { kind: 'secret', ref: uuidv7(), look, body },
      new TextEncoder().encode(value)
    )
}

/** A photo that is sent as soon as the server can be reached; until then it is sealed on this device. */
export async function photoForVisit(
  fields: Extract<OutboxRow['item'], { kind: 'photo' }>['fields'],
  photo: Blob,
  look = takeLook()
): Promise<void> {
  const { id, record } = useVisit.getState()
  const contents = new Uint8Array(await photo.arrayBuffer())
  if (id) putIn(id, record.brief.facts.street ?? '', { kind: 'photo', ref: uuidv7(), look, fields }, contents)
}

/**
 * Takes the last change made here back, by writing its opposite; where somebody else has set the same since, it is asked first. Says
 * whether there was one.
 */
export function undo(): boolean {
  const { undoable, history } = useVisit.getState()
  const last = undoable.at(-1)
  if (!last) return false
  useVisit.setState({ undoable: undoable.slice(0, -1) })
  const others = othersSince(history, last.of)
  if (others.length) useVisit.setState({ undoAsked: { undoable: last, names: others.map(({ name }) => name) } })
  else takeBack(last)
  return true
}

/** Takes an entry of one's own back as never so; what stood before it is written again. */
export function takeBackAsSlip(entry: Placed): void {
  for (const { kind, body } of undoingOf(useVisit.getState().history, entry) ?? [])
    write(kind as EntryKind, body as never, { undoing: true })
}

/** Writes what takes a change back. */
export function takeBack({ kind, body }: Undoable): void {
  useVisit.setState({ undoAsked: null })
  write(kind, body as never, { undoing: true })
}
