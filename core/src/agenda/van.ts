import { modelOf, type Catalogue } from '../catalogue/model'
import { standing, type VisitRecord } from '../record/record'
import { visitTasks } from '../work/run/visit-tasks'

/** What goes out for a visit: its boxes, and what is to be at hand for the work that is left of it, each once. */
export interface VanList {
  boxes: string[]
  atHand: string[]
}

/** The van list of a visit: a view of its tasks. */
export function vanListOf(record: VisitRecord, catalogue: Catalogue, nowMs: number): VanList {
  const boxes = standing(record.boxes ?? {}).map(({ facts }) => {
    const model = modelOf({ facts }, catalogue)
    return model ? `${model.maker} ${model.name}${facts.kit ? `, ${facts.kit}` : ''}` : 'a box'
  })
  return { boxes, atHand: [...new Set(visitTasks(record, catalogue, nowMs).flatMap(({ atHand }) => atHand))] }
}
