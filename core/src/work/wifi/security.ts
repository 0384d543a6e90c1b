import type { Facts } from '../../record/facts'
import type { Device } from '../../record/record'
import type { Policy } from '../../policy/standard'

type Security = NonNullable<Facts<'network'>['security']>
type Can = NonNullable<Facts<'device'>['security']>

/** How much each kind of security is worth against another. */
export const securityRank: Record<Security, number> = {
  open: 0,
  wep: 0,
  'wpa-tkip': 0,
  'wpa2-aes': 1,
  'wpa2-wpa3': 2,
  wpa3: 3
}

const canRank: Record<Can, number> = { wep: 1, 'wpa-tkip': 2, 'wpa2-aes': 3, wpa3: 4 }
/** What a device must be able to do to join a network of each kind. */
const needs: Record<Security, number> = { open: 0, wep: 1, 'wpa-tkip': 2, 'wpa2-aes': 3, 'wpa2-wpa3': 3, wpa3: 4 }

/** Whether a device that can do so much at best joins a network of this security. A device of which nothing is known is taken to do WPA2. */
export function canJoin(can: Can | undefined, security: Security): boolean {
  return canRank[can ?? 'wpa2-aes'] >= needs[security]
}

/** Which security a home's networks are to have, and who needs a network apart. */
export interface SecurityAdvice {
  /** Of the networks for all. */
  main: Extract<Security, 'wpa2-aes' | 'wpa2-wpa3' | 'wpa3'>
  /** A network of their own, kept apart, for devices that cannot join the others; null where every device can. */
  apart: { security: Exclude<Security, 'open'>; devices: string[] } | null
  /** Why, in one sentence. */
  reason: string
}

/**
 * The security for what the customer's devices can do: the strongest that all but the old ones join. One old device does not drag
 * the others down: it gets a network of its own, isolated.
 */
export function adviseSecurity(
  devices: readonly Pick<Device, 'facts'>[],
  leastSecurity: Policy['leastSecurity']
): SecurityAdvice {
  const modern = devices.filter(({ facts }) => canRank[facts.security ?? 'wpa2-aes'] >= canRank['wpa2-aes'])
  const all3 = devices.length > 0 && modern.length > 0 && modern.every(({ facts }) => facts.security === 'wpa3')
  const wanted = all3 ? 'wpa3' : 'wpa2-wpa3'
  const main = securityRank[wanted] >= securityRank[leastSecurity] ? wanted : leastSecurity
  const old = devices.filter(({ facts }) => !canJoin(facts.security, main))
  const names = old.map(({ facts }) => facts.name ?? 'a device')
  const weakest = old.map(({ facts }) => facts.security ?? 'wpa2-aes').sort((a, b) => canRank[a] - canRank[b])[0]
  const why = () => {
    if (devices.length === 0)
      return 'No device of the customer’s is listed: WPA2 and WPA3 together let all but very old ones in.'
    if (all3) return 'Every device can do WPA3.'
    if (main === 'wpa3') return 'The standard wants WPA3.'
    return 'WPA2 and WPA3 together: each device takes the best it can.'
  }
  return {
    main,
    apart: weakest === undefined ? null : { security: weakest === 'wpa3' ? 'wpa2-wpa3' : weakest, devices: names },
    reason:
      old.length === 0
        ? why()
        : `${why()} ${names.join(', ')} cannot join that: a network of its own, kept apart, instead of less for all.`
  }
}
