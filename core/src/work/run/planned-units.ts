import { modelOf, newestModels, type Catalogue, type Model } from '../../catalogue/model'
import { standing, unitName, type Unit, type VisitRecord } from '../../record/record'
import { contentsOf, unitsToAdd } from '../units/boxes'
import { isGoodFor } from '../units/good-look'
import { readLamps } from '../units/unit-lamps'

/** A unit as its work is reckoned: recorded, or still in a box that nobody opened. */
export interface PlannedUnit {
  id: string
  name: string
  model: Model | undefined
  role: string | undefined
  /** Null as long as it lies in its box. */
  unit: Unit | null
}

/** The units that a visit has to do with: those recorded, and those that its boxes hold and that are not recorded yet. */
export function plannedUnits(record: VisitRecord, catalogue: Catalogue): PlannedUnit[] {
  const recorded = standing(record.units)
  return [
    ...recorded.map((unit) => ({
      id: unit.id,
      name: unitName(unit),
      model: modelOf(unit, catalogue),
      role: unit.facts.role,
      unit
    })),
    ...inBoxes(record, catalogue, recorded)
  ]
}

function inBoxes(record: VisitRecord, catalogue: Catalogue, recorded: readonly Unit[]): PlannedUnit[] {
  const boxes = standing(record.boxes ?? {})
  if (boxes.length === 0) return []
  const newest = newestModels(catalogue.values())
  // A unit that was recorded without saying which box it came out of came out of one that holds its model.
  const loose = recorded.filter(({ facts }) => facts.box === undefined && !facts.stayed).map(({ facts }) => facts.model)
  return boxes.flatMap((box) => {
    // What was looked through is known: a unit that is in the box and not in the visit was left out on purpose.
    const items = contentsOf(box, catalogue)?.items.filter(({ item }) => box.items[item] === undefined) ?? []
    const from = recorded.filter(({ facts }) => facts.box === box.id).map(({ facts }) => facts.model ?? '')
    return unitsToAdd(items, (id) => newest.get(id), from)
      .filter(({ model }) => {
        const at = loose.indexOf(model.id)
        if (at >= 0) loose.splice(at, 1)
        return at < 0
      })
      .map(({ model, name }, at) => ({
        id: `${box.id}:${at}`,
        name,
        model,
        role: model.roles.length === 1 ? model.roles[0] : undefined,
        unit: null
      }))
  })
}

/** How near to the line a unit is set up: what others start from comes first. */
export const rank = ({ role }: PlannedUnit): number =>
  ({ modem: 0, gateway: 0, router: 1, switch: 1, controller: 2 })[role as 'modem'] ?? 3

const uplinkPorts: readonly string[] = ['internet', 'coax', 'telephone-line', 'fibre']
const cabledRoles: readonly string[] = ['access-point', 'switch', 'controller']

/** Whether a unit is to be cabled: it has a port for the line, or its role wants a cable. */
export const wantsCable = ({ model, role }: PlannedUnit): boolean =>
  model?.ports.some(({ kind }) => uplinkPorts.includes(kind)) === true || cabledRoles.includes(role ?? '')

/** Whether its lamps were seen well in its role. */
export function isGood({ unit, model }: PlannedUnit): boolean {
  if (!unit) return false
  const state = model && unit.sightings.length > 0 ? readLamps(unit, model).state : null
  return state !== null && isGoodFor(state, unit)
}

/** A unit that stood here before and was not set up anew: nothing of the setting up is to be done on it. */
export const isUntouched = (unit: PlannedUnit['unit']): boolean =>
  unit?.facts.stayed === true &&
  Object.keys(unit.steps ?? {}).length === 0 &&
  !unit.events.some(({ what }) => what === 'reset')
