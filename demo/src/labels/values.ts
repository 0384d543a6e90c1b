import { fillMask } from '@pasado/core/values/mask'
import type { Model } from '@pasado/core/catalogue/model'
import { seededRandom } from '@pasado/core/values/random'

/** What is printed on the label of one made-up unit. Its secrets begin with "demo", so that nobody takes them for real ones. */
export interface LabelValues {
  maker: string
  model: string
  serial: string
  /** As the record keeps it: lower-case pairs with colons. */
  mac: string
  ssid?: string
  key?: string
  setupCode?: string
  address?: string
  user?: string
  password?: string
}

const pageAddress: Record<string, string> = {
  Brackwater: '192.168.0.1',
  Quillet: '192.168.1.240',
  Oldmere: '192.168.1.1'
}

/**
 * The label of a made-up unit: the same for the same model and number at every load.
 * @param number from 0 to 255, the last octet of the MAC address
 */
export function labelValues(model: Model, number: number): LabelValues {
  const random = seededRandom(number * 7919 + [...model.id].reduce((sum, letter) => sum + letter.charCodeAt(0), 0))
  const pick = (below: number) => Math.floor(random() * below)
  const masks = model.masks ?? {}
  const octet = number.toString(16).padStart(2, '0')
  const has = new Set(model.label)
  return {
    maker: model.maker,
    model: model.name,
    serial: fillMask(masks.serial ?? 'AA9-9999-XXXX', pick),
    mac: `00:00:5e:00:53:${octet}`,
    ...(has.has('ssid') ? { ssid: `${model.defaultSsidPrefix ?? ''}53${octet.toUpperCase()}` } : {}),
    ...(has.has('key') ? { key: fillMask(masks.key ?? 'demoxxxxxxxx', pick) } : {}),
    ...(has.has('setup-code') ? { setupCode: fillMask(masks.setupCode ?? 'DEMO-9999-9999', pick) } : {}),
    ...(has.has('address') ? { address: `http://${pageAddress[model.maker] ?? '192.168.8.1'}` } : {}),
    ...(has.has('login') ? { user: 'admin', password: fillMask(masks.password ?? 'demo-aaa999', pick) } : {})
  }
}
