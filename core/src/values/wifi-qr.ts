import { ssidProblem } from './ssid'
import { z } from 'zod'

const PRINTABLE = /^[\x20-\x7e]*$/

/** What is wrong with a WPA passphrase, in words; null where nothing is. Says nothing of its strength. */
export function wpaPassphraseProblem(passphrase: string): string | null {
  if (/^[0-9a-fA-F]{64}$/.test(passphrase)) return null
  if (!PRINTABLE.test(passphrase)) return 'may hold printable ASCII characters only: no accents, no line ends'
  if (passphrase.length < 8) return `has ${passphrase.length} characters; a WPA passphrase has at least 8`
  if (passphrase.length > 63)
    return `has ${passphrase.length} characters; a WPA passphrase has at most 63, or is 64 hexadecimal digits`
  return null
}

/** What is wrong with a WEP key, in words; null where nothing is. */
export function wepKeyProblem(key: string): string | null {
  if (/^(?:[0-9a-fA-F]{10}|[0-9a-fA-F]{26})$/.test(key)) return null
  if (PRINTABLE.test(key) && (key.length === 5 || key.length === 13)) return null
  return 'must be 5 or 13 printable ASCII characters, or 10 or 26 hexadecimal digits'
}

/** Input of `wifi-qr`. */
export const wifiQrInput = z
  .strictObject({
    ssid: z.string(),
    security: z.enum(['open', 'wpa', 'wep']),
    passphrase: z.string().optional(),
    hidden: z.boolean().optional()
  })
  .superRefine((network, context) => {
    const say = (field: string, message: string | null) => {
      if (message) context.addIssue({ code: 'custom', path: [field], message })
    }
    say('ssid', ssidProblem(network.ssid))
    if (network.security === 'open') {
      if (network.passphrase !== undefined) say('passphrase', 'an open network has none; leave it out')
    } else if (network.passphrase === undefined) {
      say('passphrase', `is missing; ${network.security} needs one`)
    } else {
      say('passphrase', (network.security === 'wpa' ? wpaPassphraseProblem : wepKeyProblem)(network.passphrase))
    }
  })

export type WifiQrInput = z.infer<typeof wifiQrInput>

export const wifiQrOutput = z.strictObject({ payload: z.string() })

const TYPES = { open: 'nopass', wpa: 'WPA', wep: 'WEP' } as const

/**
 * The text a phone's camera reads to join a network. `\ ; , " :` are escaped with a backslash.
 * @param network checked by `wifiQrInput`
 */
export function wifiQr(network: WifiQrInput): { payload: string } {
  const fields = [`T:${TYPES[network.security]}`, `S:${escaped(network.ssid)}`]
  if (network.passphrase !== undefined) fields.push(`P:${escaped(network.passphrase)}`)
  if (network.hidden) fields.push('H:true')
  return { payload: `WIFI:${fields.join(';')};;` }
}

function escaped(text: string): string {
  return text.replace(/[\\;,":]/g, '\\$&')
}
