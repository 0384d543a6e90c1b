import { modelOf, type Catalogue } from '../../catalogue/model'
import type { VisitRecord } from '../../record/record'
import type { Span } from './span'

/** What past visits took for the same wait of the same model, by `durationKey`. */
export type Durations = ReadonlyMap<string, PastWait>

/** How long past waits of one kind took, and how many there were. */
export type PastWait = { count: number } & Span

const MOST_KEYS = 100

/** Under which key past waits of a task are kept: the model's, and what of its work it is. */
export const durationKey = (model: string, task: string): string =>
  `${model} ${task.replace(/^(step|update|restart|state):[^:]+/, '$1')}`

/** The kinds of waits that a visit's units may have, as past visits are asked for how long they took. */
export function durationKeys(record: Pick<VisitRecord, 'units'>, catalogue: Catalogue): string[] {
  const wanted = new Set<string>()
  for (const { facts } of Object.values(record.units)) {
    const model = modelOf({ facts }, catalogue)
    if (!model) continue
    for (const method of model.methods)
      method.steps.forEach((step, at) => {
        if (step.wait) wanted.add(durationKey(model.id, `step:x:${method.id}:${at}`))
      })
    if (model.firmware.installMin) wanted.add(durationKey(model.id, 'update:x'))
  }
  return [...wanted].sort().slice(0, MOST_KEYS)
}
