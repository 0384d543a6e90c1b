import { noNetwork, eachNetwork, sentByTheirs } from './theirs'
import { aboutNetwork, atNetwork } from './network-place'
import { wifiGuest, wifiSegment } from './wifi-segments'
import { wifiPassphrase } from './wifi-passphrase'
import type { Network } from '../../record/record'
import { eachOnce, hasOwnFact } from './answered-once'
import { canPair, factOf } from '../../work/units/run-as-one'
import { securityRank } from '../../work/wifi/security'
import { isPrivateName } from '../../secrets/names'
import { aboutUnit, atBrief, atUnit, breaks, holds, unproven, type Home, type Rule, type Verdict, rule } from '../rule'
import { listed } from '../../values/list'

export const securityWords = {
  open: 'open',
  wep: 'WEP',
  'wpa-tkip': 'WPA with TKIP',
  'wpa2-aes': 'WPA2-AES',
  'wpa2-wpa3': 'WPA2 and WPA3',
  wpa3: 'WPA3'
} as const

/** What is not recorded that a name may be; null where nothing is left out. */
function notKnownOf(home: Home, network: Network, ssid: string): Verdict | null {
  const unread = home.units.find(
    ({ unit, model }) => model === null && !unit.facts.stayed && unit.facts.defaultSsid === undefined
  )
  if (unread)
    return unproven(
      `Whether ${ssid} is the name ${unread.name} comes with is not known: its model is not recorded.`,
      'Choose its model.',
      atUnit('kit', unread.unit, 'model'),
      aboutNetwork(network)
    )
  const { customerName, street } = home.record.brief.facts
  if (customerName === undefined || street === undefined)
    return unproven(
      `Whether ${ssid} tells passers-by who lives here is not known: the ${customerName === undefined ? 'customer’s name' : 'street'} is not recorded.`,
      'Record it under Brief.',
      atBrief(customerName === undefined ? 'customerName' : 'street'),
      aboutNetwork(network)
    )
  return null
}

function judgeName(home: Home, network: Network): Verdict {
  const { ssid } = network.facts
  const { preparedName } = network.facts
  if (ssid === undefined && preparedName !== undefined)
    return unproven(
      `${preparedName} is prepared, and not typed in yet.`,
      'Type it in on the unit’s page, then say so here.',
      atNetwork(network, 'preparedName'),
      aboutNetwork(network)
    )
  if (ssid === undefined)
    return unproven('It has no name yet.', 'Enter its name.', atNetwork(network, 'ssid'), aboutNetwork(network))
  const at = atNetwork(network, 'ssid')
  if (ssid !== ssid.trim())
    return breaks(
      'A blank stands at an end of the name: people will not find it.',
      'Take the blank out.',
      at,
      aboutNetwork(network)
    )
  const lower = ssid.toLowerCase()
  const asNew = home.units.find(
    ({ unit, model }) =>
      unit.facts.defaultSsid?.toLowerCase() === lower ||
      (model?.defaultSsidPrefix && lower.startsWith(model.defaultSsidPrefix.toLowerCase()))
  )
  if (asNew)
    return breaks(
      `${ssid} is the name ${asNew.name} comes with.`,
      'Give it a name of its own.',
      at,
      aboutNetwork(network)
    )
  const { customerName, street } = home.record.brief.facts
  const tells = isPrivateName(ssid, [customerName, street])
  if (tells)
    return breaks(
      `It tells passers-by who lives here: “${tells}”.`,
      'Take a name without the customer’s name or street.',
      at,
      aboutNetwork(network)
    )
  return notKnownOf(home, network, ssid) ?? holds(`${ssid}: its own, and tells nothing.`, aboutNetwork(network))
}

function judgeSecurity(home: Home, network: Network): Verdict {
  const { security, use, isolated } = network.facts
  const at = atNetwork(network, 'security')
  if (security === undefined)
    return unproven('Its security is not recorded.', 'Choose its security.', at, aboutNetwork(network))
  const guestApart = use === 'guest' && isolated === true
  if (securityRank[security] >= securityRank[home.policy.leastSecurity] || guestApart)
    return holds(`${securityWords[security]}${guestApart ? ', guests apart' : ''}.`, aboutNetwork(network))
  return breaks(
    `${securityWords[security]} is below ${securityWords[home.policy.leastSecurity]}.`,
    `Choose ${securityWords[home.policy.leastSecurity]} or better; give an old device a network of its own.`,
    at,
    aboutNetwork(network)
  )
}

function judgeNames(home: Home): Verdict[] {
  const ours = home.networks.filter(({ facts }) => (facts.use ?? 'main') === 'main')
  const main = ours.filter(({ facts }) => facts.ssid !== undefined)
  const unnamed = ours.find((network) => network.facts.ssid === undefined && !sentByTheirs(home, network))
  if (unnamed) {
    return [unproven('A network has no name yet.', 'Enter its name.', atNetwork(unnamed, 'ssid'))]
  }
  if (main.length === 0) return []
  const own = main.filter(({ facts }) => facts.extender === undefined)
  const school = home.record.brief.facts.bandNames ?? home.policy.bandNames
  const verdicts: Verdict[] = []
  if (own.some((network) => !sentByTheirs(home, network))) {
    const names = new Set(own.map(({ facts }) => facts.ssid))
    const split = own.length > 1 && names.size > 1
    const several = own.some(({ facts }) => (facts.bands?.length ?? 1) > 1) || names.size < own.length
    if (school === 'one-name' && split)
      verdicts.push(
        breaks(
          `The bands have names of their own: ${listed([...names] as string[])}. The school in force is one name.`,
          'Use one name, or record the other school for this visit.',
          atBrief('bandNames')
        )
      )
    else if (school === 'one-a-band' && several)
      verdicts.push(
        breaks(
          'One name serves several bands. The school in force is one name a band.',
          'Split it, or record the other school for this visit.',
          atBrief('bandNames')
        )
      )
    else verdicts.push(holds(school === 'one-name' ? 'One name for all bands.' : 'One name a band.'))
  }
  for (const network of main.filter(({ facts }) => facts.extender !== undefined)) {
    const equal = own.some(({ facts }) => facts.ssid === network.facts.ssid)
    const suffixed = own.some(
      ({ facts }) => network.facts.ssid!.startsWith(facts.ssid!) && network.facts.ssid !== facts.ssid
    )
    const right = home.policy.extenderNames === 'same' ? equal : suffixed
    const wanted = home.policy.extenderNames === 'same' ? 'the router’s name' : 'the router’s name with a suffix'
    if (own.length === 0) {
      verdicts.push(
        unproven(
          'The name of the router’s network is not recorded: whether the extender’s goes with it is not known.',
          'Record the router’s network as well.',
          atNetwork(network, 'ssid'),
          aboutNetwork(network)
        )
      )
      continue
    }
    verdicts.push(
      right
        ? holds(`The extender sends ${wanted}.`, aboutNetwork(network))
        : breaks(
            `The school in force is ${wanted}.`,
            'Change the extender’s name.',
            atNetwork(network, 'ssid'),
            aboutNetwork(network)
          )
    )
  }
  return verdicts
}

export const wifiName = rule({
  id: 'wifi-name',
  name: 'Network name',
  stage: 'configure',
  level: 'must',
  minutes: 3,
  statement: "SSID of 1–32 octets, no blanks at its ends, not the default, holding neither customer's name nor street.",
  judge: (home) =>
    home.networks.length
      ? [...noNetwork(home), ...eachNetwork(judgeName)(home)]
      : [
          unproven('No network is recorded.', 'Record the home’s network.', {
            stage: 'configure',
            kind: 'network',
            id: 'new',
            field: 'ssid'
          })
        ]
})

export const wifiNamingSchool = rule({
  id: 'wifi-naming-school',
  name: 'Naming school',
  stage: 'configure',
  level: 'must',
  minutes: 4,
  statement: 'Bands and extenders are named by the school in force.',
  judge: judgeNames
})

export const wifiSecurity = rule({
  id: 'wifi-security',
  name: 'Security',
  stage: 'configure',
  level: 'must',
  minutes: 3,
  statement: 'WPA2-AES or WPA3; never open, WEP or TKIP outside an isolated guest network.',
  judge: (home) => [...noNetwork(home), ...eachNetwork(judgeSecurity)(home)]
})

export const wifiPushbuttonOff = rule({
  id: 'wifi-pushbutton-off',
  name: 'Pairing button off',
  stage: 'configure',
  level: 'should',
  minutes: 1,
  sparesUntouched: true,
  needs: ['model'],
  statement:
    'Push-button and PIN pairing of every unit that has them are off at hand-over, unless the customer asked for them.',
  judge: (home) =>
    eachOnce(
      home,
      home.units.filter(({ model }) => model !== null && canPair(model)),
      hasOwnFact('pushButton'),
      (known) => {
        const { units } = home
        const { value: pushButton, with: whose } = factOf(units, known, 'pushButton')
        const at = atUnit('configure', known.unit, 'pushButton')
        if (pushButton === undefined)
          return unproven(
            'Whether its pairing button is off is not recorded.',
            'Switch it off, then record it.',
            at,
            aboutUnit(known)
          )
        if (pushButton === 'on')
          return breaks(
            'Its pairing button still works.',
            'Switch it off, or record that the customer asked for it.',
            at,
            aboutUnit(known)
          )
        return holds(
          `${pushButton === 'off' ? 'Its pairing button is off' : 'Left on, as the customer asked'}${whose}.`,
          aboutUnit(known)
        )
      }
    )
})

/** Rules of Configure about Wi-Fi. */
export const wifiRules: readonly Rule[] = [
  wifiName,
  wifiNamingSchool,
  wifiSecurity,
  wifiPassphrase,
  wifiGuest,
  wifiSegment,
  wifiPushbuttonOff
]
