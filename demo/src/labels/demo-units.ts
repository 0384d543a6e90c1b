import type { Facts } from '@pasado/core/record/facts'
import { demoVisits } from '../all'
import { demoModels } from '../models/all'
import { labelValues, type LabelValues } from './values'

/** The label of a demo unit, with the visit and the name that it goes by. */
export interface DemoLabel {
  visit: string
  street: string
  unit: string
  values: LabelValues
}

/** The label of every unit of the demo visits, each once. */
export function demoLabels(): DemoLabel[] {
  const labels = new Map<string, DemoLabel>()
  for (const visit of demoVisits()) {
    const named = new Map<string, Facts<'unit'>>()
    for (const step of visit.steps) {
      if (step.does !== 'entry' || step.kind !== 'unit.set') continue
      const { id, set } = step.body as { id: string; set: Facts<'unit'> }
      named.set(id, { ...named.get(id), ...set })
    }
    for (const { name, model, mac } of named.values()) {
      const known = demoModels.find((demoModel) => demoModel.id === model)
      if (!known || mac === undefined) continue
      labels.set(mac, {
        visit: visit.id,
        street: visit.brief.street ?? '',
        unit: name ?? known.name,
        values: labelValues(known, parseInt(mac.slice(-2), 16))
      })
    }
  }
  return [...labels.values()]
}
