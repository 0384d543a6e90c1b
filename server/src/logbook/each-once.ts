import { isDeepStrictEqual } from 'node:util'
import type { Draft, Entry } from '@pasado/core/record/entry'
import { DomainProblem, refused } from '../problem'

/** How the server answers for an entry that it holds. */
export interface Receipt {
  id: string
  seq: number
  received: string
  hash: string
}

/** @throws DomainProblem where one id stands for two entries */
export function mustDiffer(drafts: readonly Draft[]): void {
  const first = new Map<string, Draft>()
  const twice = drafts.flatMap((draft, index) => {
    const other = first.get(draft.id)
    first.set(draft.id, other ?? draft)
    return other
      ? [{ path: ['entries', index, 'id'], message: 'is the id of an entry before it in this request; send each once' }]
      : []
  })
  if (twice.length) throw refused(twice)
}

/** @throws DomainProblem where the logbook holds another entry under the id of a draft */
export function refuseOther(draft: Draft, held: Entry | undefined): void {
  if (!held) return
  const { by: _b, seq: _s, received: _r, hash: _h, ...sent } = held
  if (!isDeepStrictEqual(sent, JSON.parse(JSON.stringify(draft)))) {
    throw new DomainProblem(
      'conflict',
      'id-taken',
      'The logbook holds another entry under this id; give the new one an id of its own.',
      [],
      { entry: draft.id }
    )
  }
}

/** The receipt of an entry that is in the logbook. */
export function receiptOf({ id, seq, received, hash }: Entry): Receipt {
  return { id, seq, received, hash }
}
