import type { Condition } from '../catalogue/model'
import { GOOD_DBM, LEAST_DBM } from './conditions'
import type { HouseNow } from './moment'

/** What a unit comes to once it runs and nothing stands in its way: by its role, its cables, its air and who reaches the internet. */
export function conditionWhenSettled(house: HouseNow, id: string): Condition {
  const unit = house.units.get(id)!
  const { role } = unit.definition
  const online = house.network.online.has(id)
  if (role === 'modem' || role === 'gateway') return lineCondition(house, id)
  if (role === 'powerline-adapter') {
    const partner = unit.partner === null ? undefined : house.units.get(unit.partner)
    if (!partner?.powered) return 'ready'
    return unit.definition.circuit === partner.definition.circuit ? 'good' : 'weak'
  }
  if (unit.running['wifi.radio'] === 'off' && unit.model.radios.length > 0) return 'radio-off'
  const mode = unit.running.mode ?? (role === 'access-point' ? 'access-point' : 'router')
  const converts =
    unit.model.roles.includes('router') &&
    unit.model.roles.includes('access-point') &&
    unit.model.methods.some(({ kind }) => kind === 'access-point')
  // An old router tells by its ports what it is used as.
  if (converts && !unit.model.mesh) {
    if (mode === 'access-point' || !house.network.internetPortUsed.has(id)) return 'as-access-point'
    if (online) return 'as-router'
    return unit.model.states.some(({ is }) => is === 'no-internet') ? 'no-internet' : 'as-access-point'
  }
  if (!unit.configured) return 'ready'
  if (role === 'node' || role === 'extender') {
    if (house.network.wired(id)) return online ? 'good' : 'no-internet'
    const up = unit.uplink
    if (up === null || !house.units.get(up)?.powered) return 'no-link'
    const dbm = house.signal(up, id)
    if (dbm < LEAST_DBM) return 'no-link'
    if (!online) return 'no-internet'
    return dbm < GOOD_DBM ? 'weak' : 'good'
  }
  if (role === 'access-point' || role === 'switch' || role === 'controller')
    return online || house.network.wired(id) ? 'good' : 'no-link'
  return online ? 'good' : 'no-internet'
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
