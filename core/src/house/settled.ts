import type { Condition, Model } from '../catalogue/model'
import { GOOD_DBM, LEAST_DBM } from './conditions'
import { hangsOnLine, hops, type HouseNow, type UnitNow } from './moment'

/** What a unit comes to once it runs and nothing stands in its way: by its role, its cables, its air and who reaches the internet. */
export function conditionWhenSettled(house: HouseNow, id: string): Condition {
  const unit = house.units.get(id)!
  const { role } = unit.definition
  const online = house.network.online.has(id)
  if (hangsOnLine(unit)) return lineCondition(house, id)
  if (role === 'powerline-adapter') return pairCondition(house, unit)
  if (unit.running['wifi.radio'] === 'off' && unit.model.radios.length > 0) return 'radio-off'
  if (isConvertible(unit.model)) return convertedCondition(house, id, unit)
  if (!unit.configured) return 'ready'
  if (hops(unit)) return hopCondition(house, id, unit)
  if (role === 'access-point' || role === 'switch' || role === 'controller')
    return online || house.network.wired(id) ? 'good' : 'no-link'
  return online ? 'good' : 'no-internet'
}

/** What a powerline adapter comes to by its partner, and by whether they hang on one circuit. */
function pairCondition(house: HouseNow, { partner: id, definition }: UnitNow): Condition {
  const partner = id === null ? undefined : house.units.get(id)
  if (!partner?.powered) return 'ready'
  return definition.circuit === partner.definition.circuit ? 'good' : 'weak'
}

/** Whether a model is a router that can be made an access point, and no member of a mesh. */
const isConvertible = ({ roles, methods, mesh }: Model): boolean =>
  roles.includes('router') &&
  roles.includes('access-point') &&
  methods.some(({ kind }) => kind === 'access-point') &&
  !mesh

/** What an old router comes to: it tells by its ports what it is used as. */
function convertedCondition(house: HouseNow, id: string, { running, definition, model }: UnitNow): Condition {
  const mode = running.mode ?? (definition.role === 'access-point' ? 'access-point' : 'router')
  if (mode === 'access-point' || !house.network.internetPortUsed.has(id)) return 'as-access-point'
  if (house.network.online.has(id)) return 'as-router'
  return model.states.some(({ is }) => is === 'no-internet') ? 'no-internet' : 'as-access-point'
}

/** What a node or extender comes to by the hop to the one it hangs on. */
function hopCondition(house: HouseNow, id: string, { uplink }: UnitNow): Condition {
  const online = house.network.online.has(id)
  if (house.network.wired(id)) return online ? 'good' : 'no-internet'
  if (uplink === null || !house.units.get(uplink)?.powered) return 'no-link'
  const dbm = house.signal(uplink, id)
  if (dbm < LEAST_DBM) return 'no-link'
  if (!online) return 'no-internet'
  return dbm < GOOD_DBM ? 'weak' : 'good'
}

/** What a modem or gateway comes to on its line. */
export function lineCondition(house: HouseNow, id: string): Condition {
  const unit = house.units.get(id)!
  if (!house.network.lineAt.has(id) || house.fault('dead-line')) return 'no-line'
  const has = (condition: Condition) => unit.model.states.some(({ is }) => is === condition)
  if (has('line-login') && !unit.configured) return has('line-training') ? 'line-login' : 'line-seeking'
  if (house.fault('login-refused') && has('login-refused')) return 'login-refused'
  return 'good'
}
