import { secretFor, standing, type Network, type Secret, type VisitRecord } from '../../record/record'

/**
 * The network whose passphrase another shares: one of the home's own names a band, and what an extender sends, are the same network to
 * the customer and have one passphrase. Null for a network with one of its own.
 */
export function takesPassphraseFrom(record: VisitRecord, network: Network | undefined): string | null {
  // Of one that nobody said what it is for, nobody knows whether it shares any.
  if (network?.facts.use !== 'main') return null
  const first = standing(record.networks).find(
    ({ facts }) => (facts.use ?? 'main') === 'main' && facts.extender === undefined
  )
  return first && first.id !== network.id ? first.id : null
}

/** The passphrase of a network: its own, or else that of the network it shares one with. */
export function passphraseOf(record: VisitRecord, network: Network): Secret | null {
  const own = secretFor(record, 'wifi-passphrase', network.id)
  if (own) return own
  const giver = takesPassphraseFrom(record, network)
  return giver === null ? null : secretFor(record, 'wifi-passphrase', giver)
}
