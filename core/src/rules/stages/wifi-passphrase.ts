import { preparedSecret, secretFor, type Network } from '../../record/record'
import { passphraseOf, takesPassphraseFrom } from '../../work/wifi/passphrase'
import { breaks, holds, unproven, type Home, type Place, type Verdict, rule } from '../rule'
import { aboutNetwork, atNetwork } from './network-place'
import { noNetwork, ofTheirs, withPassphraseOfTheirs } from './theirs'

function judgePassphrase(home: Home, network: Network): Verdict {
  const { security } = network.facts
  const place: Place = { stage: 'configure', kind: 'secret', id: network.id, field: 'wifi-passphrase' }
  const giver = takesPassphraseFrom(home.record, network)
  const secret = passphraseOf(home.record, network)
  if (!secret && preparedSecret(home.record, 'wifi-passphrase', network.id))
    return unproven(
      'Its passphrase is prepared, and not typed in yet.',
      'Type it in on the unit’s page, then say so here.',
      atNetwork(network, 'preparedName'),
      aboutNetwork(network)
    )
  const shared = secret ? null : withPassphraseOfTheirs(home, network)
  if (shared) return shared
  if (!secret) return unproven('No passphrase is in the vault.', 'Make one or type one.', place, aboutNetwork(network))
  const { assessed } = secret
  const remedy = 'Make a new one.'
  const same = Object.values(home.record.secrets).find(
    (other) =>
      other.ref !== secret.ref &&
      secretFor(home.record, other.purpose, other.id)?.ref === other.ref &&
      other.assessed.print === assessed.print &&
      other.id !== network.id &&
      !(
        other.purpose === 'wifi-passphrase' &&
        (other.id === giver ||
          takesPassphraseFrom(
            home.record,
            home.networks.find(({ id }) => id === other.id)
          ) === network.id)
      )
  )
  if (same?.purpose === 'label-key')
    return breaks('It is the default key of a label.', remedy, place, aboutNetwork(network))
  if (same)
    return breaks(
      `It is the same as another secret of this visit (${same.purpose.replaceAll('-', ' ')}).`,
      remedy,
      place,
      aboutNetwork(network)
    )
  if (assessed.holdsName)
    return breaks(
      'It holds the network’s name, the customer’s name or the street.',
      remedy,
      place,
      aboutNetwork(network)
    )
  if (assessed.score < home.policy.leastStrength) {
    return breaks(
      `Strength ${assessed.score} of 4; the standard wants ${home.policy.leastStrength}. About ${Math.round(assessed.bits)} bits${security === 'wep' ? ', and WEP at that' : ''}.`,
      remedy,
      place,
      aboutNetwork(network)
    )
  }
  // What was made here is no default, whatever a label says.
  const unread =
    secret.origin === 'made'
      ? undefined
      : home.units.find(
          ({ unit, model }) =>
            !unit.facts.stayed && model?.label.includes('key') && !secretFor(home.record, 'label-key', unit.id)
        )
  if (unread)
    return unproven(
      `Whether it is the default key of ${unread.name} is not known: the key on its label is not recorded.`,
      'Read its label.',
      { stage: 'kit', kind: 'secret', id: unread.unit.id, field: 'label-key' },
      aboutNetwork(network)
    )
  return holds(`Strength ${assessed.score} of 4, about ${Math.round(assessed.bits)} bits.`, aboutNetwork(network))
}

export const wifiPassphrase = rule({
  id: 'wifi-passphrase',
  name: 'Passphrase',
  stage: 'configure',
  level: 'must',
  minutes: 3,
  statement: '8–63 characters, strong enough, not the default, not the name, not another secret of the visit.',
  judge: (home) => [
    ...noNetwork(home),
    ...home.networks
      .filter(({ facts }) => facts.security !== 'open')
      .map((network) => ofTheirs(home, network) ?? judgePassphrase(home, network))
  ]
})
