import { createStore, del, entries } from 'idb-keyval'
import type { Draft } from '@pasado/core/record/entry'
import { copyOf } from '../app/offline-copy'
import { keepRow, keepSealedRow, type OutboxItem, type Owner } from './rows'

interface BoxedBefore {
  meta:
    | { kind: 'secret'; visit: string; ref: string; body: Extract<OutboxItem, { kind: 'secret' }>['body'] }
    | { kind: 'photo'; visit: string; ref: string; fields: Extract<OutboxItem, { kind: 'photo' }>['fields'] }
  iv: Uint8Array<ArrayBuffer> | null
  data: ArrayBuffer
}

const QUEUE = /^pasado-queue-(.+)$/

let adopting: Promise<void> | null = null

/**
 * Takes over what an earlier version could not send: a queue of lines a visit, and a box of secrets and photos. Whose it is was not
 * written down: it is taken to be who was here last; where that is not known either, a person says so.
 */
export function adopted(): Promise<void> {
  return (adopting ??= adopt().catch(() => undefined))
}

async function adopt(): Promise<void> {
  const last = await copyOf<{ id: string; name: string }>('me')
  const owner: Owner | null = last ? { id: last.value.id, name: last.value.name } : null
  let at = 0
  // Before every row of this version.
  const keyOf = () => `row ${String(at++).padStart(14, '0')} before`
  for (const [name, queue] of await entries<string, unknown>()) {
    const visit = QUEUE.exec(String(name))?.[1]
    if (!visit || !Array.isArray(queue)) continue
    for (const draft of queue as Draft[]) {
      await keepRow({
        key: `${keyOf()} ${draft.id}`,
        owner,
        outbox: draft.from,
        visit,
        street: '',
        item: { kind: 'line', draft },
        refused: null
      })
    }
    await del(name)
  }
  const box = createStore('pasado-box', 'items')
  for (const [ref, { meta, iv, data }] of await entries<string, BoxedBefore>(box)) {
    const item: OutboxItem =
      meta.kind === 'secret'
        ? { kind: 'secret', ref: meta.ref, look: { base: 0 }, body: meta.body }
        : { kind: 'photo', ref: meta.ref, look: { base: 0 }, fields: meta.fields }
    await keepSealedRow(
      { key: `${keyOf()} ${meta.ref}`, owner, outbox: '', visit: meta.visit, street: '', item, refused: null },
      { iv, data }
    )
    await del(ref, box)
  }
}
