import type { Stays } from '../record/record'

/** Kinds of what stays, as people speak of them. */
export const stayKindWords: Readonly<Record<NonNullable<Stays['facts']['kind']>, string>> = {
  router: 'router',
  modem: 'modem',
  'access-point': 'access point',
  'mesh-node': 'mesh node',
  switch: 'switch',
  printer: 'printer',
  other: 'something else'
}

/** What is known of something that stays, beside its name, in one line. */
export function staysWords({ facts }: Stays): string {
  const { name, makeModel, kind, whose, address, givesAddresses, place } = facts
  return [
    kind && stayKindWords[kind],
    name === undefined ? undefined : makeModel,
    whose && `the ${whose}’s`,
    address,
    givesAddresses && (givesAddresses === 'yes' ? 'gives addresses' : 'gives no addresses'),
    place && `stands at ${place}`
  ]
    .filter(Boolean)
    .join(' · ')
}
