import { modelOf, type Catalogue } from '../../catalogue/model'
import { equipmentOf } from '../../record/equipment'
import { readWith } from './unit-lamps'
import type { LampLook } from '../../catalogue/look'
import type { VisitRecord, Wait } from '../../record/record'

/** Waits that a unit's lamps do not end: a press that is still to come, an install that goes on whatever they show meanwhile. */
const goesOn = ({ what, task }: Wait) => what.startsWith('pairing window') || task?.startsWith('update:') === true

/**
 * The waits of a unit that are over once its lamps were seen so: it shows what was waited for, or that all is well.
 * @returns their ids
 */
export function waitsEndedBy(
  record: VisitRecord,
  catalogue: Catalogue,
  unitId: string,
  lamps: readonly LampLook[],
  at: string
): string[] {
  const lit = equipmentOf(record, unitId)?.thing
  const model = lit && modelOf(lit, catalogue)
  if (!lit || !model) return []
  const { state } = readWith(lit, model, lamps, at)
  if (!state) return []
  return Object.values(record.waits)
    .filter((wait) => {
      if (wait.endedAt !== null || wait.unit !== unitId || goesOn(wait)) return false
      const [, during] = /^state:[^:]+:(.+)$/.exec(wait.task ?? '') ?? []
      if (during !== undefined) return state.state !== during
      const [, method, step] = /^step:[^:]+:([^:]+):(\d+)$/.exec(wait.task ?? '') ?? []
      const expected = model.methods.find(({ id }) => id === method)?.steps[Number(step)]?.expect
      return state.good === true || expected === state.state
    })
    .map(({ id }) => id)
}

/** The waits that run: none once a visit is sealed, whatever was left running in it. */
export function runningWaits({ waits, seal }: Pick<VisitRecord, 'waits' | 'seal'>): Wait[] {
  return seal
    ? []
    : Object.values(waits)
        .filter(({ endedAt }) => endedAt === null)
        .sort((a, b) => a.seq - b.seq)
}
