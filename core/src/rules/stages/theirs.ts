import { staysName, staysThatSend } from '../../record/equipment'
import { fieldKey, secretKey } from '../../record/keys'
import { thingsOf, type Network, type Stays } from '../../record/record'
import { isSame, type History } from '../../history/history'
import { takesPassphraseFrom } from '../../work/wifi/passphrase'
import { hasRole } from '../../record/roles'
import { unproven, type Home, type Place, type Verdict } from '../rule'
import { aboutNetwork } from './network-place'

/** Whether a key was given more than one value, lines that were taken back apart: the first is how it was found. */
function wasSetAnew(history: History, key: string): boolean {
  const [found, ...others] = (history.writes.get(key) ?? []).filter(({ seq }) => !history.undone.has(seq))
  return others.some(({ value }) => !isSame(value, found!.value))
}

/**
 * What stays and sends a network, where it is theirs: recorded as it was found, and nothing of it was set by this visit.
 * @returns null of one that is ours, or became ours to answer for
 */
export function sentByTheirs(
  { record, history }: Pick<Home, 'record' | 'history'>,
  { id, facts }: Network
): Stays | null {
  const stays = thingsOf(record, 'stays')[facts.stays ?? '']
  if (!stays || stays.removedSeq !== null || !staysThatSend.has(stays.facts.kind)) return null
  const keys = [
    ...['ssid', 'security'].map((field) => fieldKey('network', id, field)),
    secretKey(id, 'wifi-passphrase')
  ]
  const wasMade = Object.values(record.secrets).some((secret) => secret.id === id && secret.origin === 'made')
  return wasMade || keys.some((key) => wasSetAnew(history, key)) ? null : stays
}

/** What is said of a network that is theirs: nothing of it is asked of us. Null of one of ours. */
export function ofTheirs(home: Home, network: Network): Verdict | null {
  const stays = sentByTheirs(home, network)
  return stays && theirs(`It is sent by ${staysName(stays)}, which stays: nothing of it was set here.`, network)
}

/** The same of a network of ours that takes its passphrase from one of theirs, and has none of its own. */
export function withPassphraseOfTheirs(home: Home, network: Network): Verdict | null {
  const giver = home.record.networks[takesPassphraseFrom(home.record, network) ?? '']
  const stays = giver && sentByTheirs(home, giver)
  return stays ? theirs(`It has the passphrase of what ${staysName(stays)} sends, which is theirs.`, network) : null
}

const theirs = (evidence: string, network: Network): Verdict => ({
  outcome: 'not-here',
  subject: aboutNetwork(network),
  evidence,
  remedy: '',
  place: null
})

/** Units that this visit brought and that send a network. */
const sendersOfOurs = ({ units }: Home) =>
  units.filter(
    ({ unit, model }) =>
      !unit.facts.stayed && model?.radios.length !== 0 && !hasRole(unit, 'modem', 'switch', 'controller')
  )

/**
 * That no network is recorded, of a home that units of ours were brought to: what it is like is not known; nor is what ours send where all that is
 * recorded is theirs. Empty where one of ours is.
 */
export function noNetwork(home: Home): Verdict[] {
  const place: Place = { stage: 'configure', kind: 'network', id: 'new', field: 'ssid' }
  if (home.networks.length === 0)
    return home.units.some(({ unit }) => !unit.facts.stayed)
      ? [unproven('No network is recorded.', 'Record the home’s network.', place)]
      : []
  const [sender] = sendersOfOurs(home)
  if (!sender || home.networks.some((network) => !sentByTheirs(home, network))) return []
  return [
    unproven(
      `What ${sender.name} sends is not recorded: all that is recorded is theirs.`,
      'Record the name that it sends.',
      place
    )
  ]
}

/** Judges each network of ours; of theirs nothing is asked. */
export const eachNetwork =
  (judge: (home: Home, network: Network) => Verdict) =>
  (home: Home): Verdict[] =>
    home.networks.map((network) => ofTheirs(home, network) ?? judge(home, network))
