import { laterFigures, type Standard } from '../policy/standard'
import { ruleNames } from './rule-names'

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
  rules: Object.keys(ruleNames)
}
