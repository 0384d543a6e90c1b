import { modelKey, type Catalogue } from '../catalogue/model'
import type { HouseDefinition, HouseUnit } from './definition'
import type { CableNow, UnitNow } from './moment'
import { firstSettings } from './pages'

/** A fault of this kind that was planted, about this unit where it is about one. */
export function faultOf(definition: HouseDefinition, kind: HouseDefinition['faults'][number]['kind'], unit?: string) {
  return definition.faults.find(
    (fault) => fault.kind === kind && (unit === undefined || ('unit' in fault && fault.unit === unit))
  )
}

/**
 * A unit before anything was done in the house.
 * @throws Error where the catalogue does not hold its model
 */
export function firstUnit(definition: HouseDefinition, unit: HouseUnit, catalogue: Catalogue): UnitNow {
  const model = catalogue.get(modelKey(unit.model, unit.modelVersion))
  if (!model) throw new Error(`the catalogue holds no ${unit.model} version ${unit.modelVersion}`)
  const has = (kind: HouseDefinition['faults'][number]['kind']) => faultOf(definition, kind, unit.id)
  const withdrawn = has('withdrawn-firmware')
  const settings = {
    ...firstSettings(unit, model),
    ...unit.settings,
    ...(has('radio-off') ? { 'wifi.radio': 'off' as const } : {})
  }
  return {
    definition: unit,
    model,
    powered: false,
    condition: 'off',
    configured: unit.running === true,
    firmware:
      withdrawn?.kind === 'withdrawn-firmware'
        ? withdrawn.version
        : (unit.firmware ?? model.firmware.releases[0]?.version ?? ''),
    at: unit.at ?? null,
    uplink: null,
    partner: null,
    stored: settings,
    running: settings,
    drafts: {},
    windowUntil: 0,
    rightAdapter: !has('wrong-adapter'),
    stuck: unit.running === true && has('stuck-modem') !== undefined,
    tries: 0
  }
}

/** The cables of a house before anybody led one elsewhere. */
export function firstCables({ cables, faults }: HouseDefinition): CableNow[] {
  return cables.map(({ id, kind, category, lengthM, a = null, b = null }) => ({
    id,
    kind,
    category,
    lengthM,
    bad: faults.some((fault) => fault.kind === 'bad-cable' && fault.cable === id),
    a,
    b
  }))
}
