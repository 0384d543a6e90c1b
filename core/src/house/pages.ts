import type { Band } from '../values/band'
import type { Model } from '../catalogue/model'
import type { HouseNow } from './moment'
import type { HouseSettings, HouseUnit } from './definition'

/** Under which name a unit's page tells the channel of a band, and the one it comes with. */
export const channelField = {
  '2.4': 'wifi.2.4.channel',
  '5': 'wifi.5.channel',
  '6': 'wifi.6.channel'
} as const satisfies Record<Band, keyof HouseSettings>
const firstChannel: Record<Band, string> = { '2.4': '6', '5': '36', '6': '5' }
const bandsOf = (model: Model): Band[] => [...new Set(model.radios.map(({ band }) => band))].sort()

/** What a unit fresh from its box holds. */
export function firstSettings(unit: HouseUnit, model: Model): HouseSettings {
  const { role } = unit
  const last = unit.mac
    .replace(/[^0-9a-f]/gi, '')
    .slice(-4)
    .toUpperCase()
  const channels = Object.fromEntries(bandsOf(model).map((band) => [channelField[band], firstChannel[band]]))
  const wifi: HouseSettings = model.radios.length
    ? {
        'wifi.radio': 'on',
        ...channels,
        ...(model.defaultSsidPrefix === null ? {} : { 'wifi.ssid': `${model.defaultSsidPrefix}${last}`.slice(0, 32) })
      }
    : {}
  if (role === 'gateway')
    return {
      ...wifi,
      mode: 'router',
      'lan.address': '192.168.20.1',
      'dhcp.server': 'on',
      'dhcp.from': '192.168.20.100',
      'dhcp.to': '192.168.20.199'
    }
  // A router of its own makes a second network until somebody says otherwise.
  if (model.roles.includes('router') && !model.mesh)
    return {
      ...wifi,
      mode: 'router',
      'lan.address': '192.168.1.1',
      'lan.secondary': 'off',
      'dhcp.server': 'on',
      'dhcp.from': '192.168.1.100',
      'dhcp.to': '192.168.1.199',
      'dhcp.relay': 'off'
    }
  if (role === 'router')
    return {
      ...wifi,
      mode: 'router',
      'lan.address': '192.168.50.1',
      'dhcp.server': 'on',
      'dhcp.from': '192.168.50.100',
      'dhcp.to': '192.168.50.199'
    }
  return wifi
}

/** Which pages a unit has, and what each holds. */
export function pagesOf(
  model: Model,
  role: HouseUnit['role']
): { page: 'mode' | 'lan' | 'wifi'; fields: (keyof HouseSettings)[] }[] {
  const routes = model.roles.includes('router') || role === 'gateway'
  return [
    ...(routes && model.roles.includes('access-point') ? [{ page: 'mode' as const, fields: ['mode' as const] }] : []),
    ...(routes
      ? [
          {
            page: 'lan' as const,
            fields: [
              'lan.address',
              'lan.secondary',
              'dhcp.server',
              'dhcp.from',
              'dhcp.to',
              'dhcp.relay',
              'lan.dns'
            ] as (keyof HouseSettings)[]
          }
        ]
      : []),
    ...(model.radios.length
      ? [
          {
            page: 'wifi' as const,
            fields: [
              'wifi.ssid',
              'wifi.radio',
              ...bandsOf(model).map((band) => channelField[band])
            ] as (keyof HouseSettings)[]
          }
        ]
      : [])
  ]
}

/** What a unit's own page tells of it, by dotted names: never a secret. Null where nothing answers. */
export function readingOf(house: HouseNow, id: string): Record<string, string> | null {
  const unit = house.units.get(id)
  if (!unit?.powered || unit.condition === 'off' || unit.condition === 'booting' || unit.condition === 'resetting')
    return null
  const { model, definition } = unit
  const values: Record<string, string> = {
    'device.maker': model.maker,
    'device.model': model.name,
    'device.serial': definition.serial,
    'device.mac': definition.mac
  }
  if (unit.firmware) values['device.firmware'] = unit.firmware
  const address = house.network.addressOf(id)
  if (address !== null) values['lan.address'] = address
  for (const [name, value] of Object.entries(unit.running))
    if (value !== undefined && value !== '' && name !== 'lan.address') values[name] = value
  const clients =
    [...house.units.values()].filter((candidate) => candidate.uplink === id && candidate.powered).length +
    (house.phone === id ? 1 : 0)
  if (model.radios.length) values['wifi.clients'] = String(clients)
  values['wan.online'] = house.network.online.has(id) ? 'yes' : 'no'
  return values
}
