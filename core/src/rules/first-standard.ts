import { laterFigures, type Standard } from '../policy/standard'

/** The rules of its first version: frozen, as the digest of the standard is under every seal. What came later is in the next version. */
const rulesOfVersion1 = `
  brief-contact brief-service brief-method brief-line-alarm
  kit-complete kit-adapter kit-identity kit-label kit-role kit-family kit-reset
  place-height place-clear place-outlet place-hops place-count place-spacing place-floors place-outbuilding
  place-final
  cable-mode cable-modem-restart cable-speed cable-splitter cable-power cable-old-kit
  start-method-window start-good-lamp start-fresh-lamp start-in-time start-prompts
  addr-one-dhcp addr-valid addr-unique addr-pool addr-no-overlap addr-single-nat addr-ap-mode addr-reachable
  addr-applied
  wifi-name wifi-naming-school wifi-security wifi-passphrase wifi-guest wifi-segment wifi-pushbutton-off
  radio-channel radio-plan radio-radar
  cred-admin cred-local-admin cred-account cred-no-leak
  firm-recorded firm-minimum firm-same firm-updates
  prove-source prove-rooms prove-path prove-after-move prove-wired prove-names-gone prove-rejoined prove-voice
  prove-settle
  hand-choices hand-lamp hand-pack hand-voice-power hand-custody hand-cautions
`
  .trim()
  .split(/\s+/)

/** The standard a company starts with. */
export const firstStandard: Standard = {
  format: 'pasado.standard/1',
  id: 'house',
  version: 1,
  policy: {
    leastStrength: 3,
    poolSchool: 'outside',
    leastSecurity: 'wpa2-aes',
    bandNames: 'one-name',
    extenderNames: 'same',
    updates: 'automatic',
    leastHeightM: 1,
    mostHeightM: 2.2,
    mostMembers: 4,
    eraseAfterDays: 30,
    ...laterFigures,
    channelSet: '1-6-11',
    dnsChoices: [{ name: 'Ness Skerrow resolver', servers: '192.0.2.53, 198.51.100.53' }]
  },
  levels: {},
  rules: rulesOfVersion1
}
