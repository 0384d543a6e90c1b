import { isDeepStrictEqual } from 'node:util'
import type { Draft } from '@pasado/core/record/entry'
import type { Author } from '@pasado/core/record/attribution'
import { unitElsewhere } from '../db/units'
import type { OpenVisit } from './open-visit'

const identity = ['serial', 'mac', 'model'] as const

/** Looks at every other home for units whose serial or MAC address these entries set, and writes down what is found. */
export async function markElsewhere(open: OpenVisit, drafts: readonly Draft[], by: Author): Promise<void> {
  const touched = new Set(
    drafts.flatMap((draft) =>
      draft.kind === 'unit.set' && identity.some((field) => field in draft.body.set) ? [draft.body.id] : []
    )
  )
  for (const id of touched) {
    const unit = open.state.record.units[id]
    if (!unit) continue
    const { model, serial, mac } = unit.facts
    const found = await unitElsewhere(open.connection, open.head.home_id, { model, serial, mac })
    if (!isDeepStrictEqual(found, unit.elsewhere ?? [])) open.write('unit.elsewhere', { unit: id, found }, by)
  }
}
