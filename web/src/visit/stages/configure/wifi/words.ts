import type { securities } from '@pasado/core/record/things/network'

/** Kinds of security as they are written on boxes and pages. */
export const securityWords: Record<(typeof securities)[number], string> = {
  open: 'open',
  wep: 'WEP',
  'wpa-tkip': 'WPA, TKIP',
  'wpa2-aes': 'WPA2-AES',
  'wpa2-wpa3': 'WPA2 and WPA3',
  wpa3: 'WPA3'
}
