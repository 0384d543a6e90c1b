import { bands as allBands, type Band } from '../../values/band'
import { modelOf, type Catalogue } from '../../catalogue/model'
import type { Facts } from '../../record/facts'
import { standing, thingsOf, unitName, type Network, type Segment, type VisitRecord } from '../../record/record'
import { isPrivateName } from '../../secrets/names'
import { isMeshMember } from '../units/known-unit'
import type { Policy } from '../../policy/standard'
import { utf8Length } from '../../values/unicode'
import { ssidProblem } from '../../values/ssid'
import { adviseSecurity } from './security'

/** A network that is proposed: its facts, the one of the record that it would change, and why it is there. */
export interface ProposedNetwork {
  /** Of the record, where one of this purpose stands; else null. */
  existing: string | null
  set: Pick<Facts<'network'>, 'ssid' | 'use' | 'bands' | 'security' | 'isolated' | 'extender' | 'segment'>
  why: string
}

/** The networks of a home, or why the name they are to build on cannot be used. */
export type NameProposal =
  | { networks: ProposedNetwork[]; /** Recorded ones that have no place in it. */ surplus: string[] }
  | { problem: string }

/** What is wrong with a name for a home's network, in words; null where nothing is. */
export function nameProblem(name: string, record: VisitRecord, catalogue: Catalogue): string | null {
  const wrong = ssidProblem(name)
  if (wrong) return wrong
  if (name !== name.trim()) return 'has a blank at an end: people will not find it'
  const lower = name.toLowerCase()
  for (const { facts } of standing(record.units)) {
    const prefix = modelOf({ facts }, catalogue)?.defaultSsidPrefix
    if (facts.defaultSsid?.toLowerCase() === lower || (prefix && lower.startsWith(prefix.toLowerCase())))
      return 'is the name a unit comes with: give the home one of its own'
  }
  const told = isPrivateName(name, [record.brief.facts.customerName, record.brief.facts.street])
  return told ? `tells passers-by who lives here: “${told}”` : null
}

const MOST_OCTETS = 32
const suffixes = { '2.4': '', '5': '-5', '6': '-6' } as const

/**
 * The home's networks by the schools in force: one name or one a band, extenders with the router's name or a suffix, guests apart where
 * they are wanted, and a network apart for devices too old for the others. No rule on names, security or segments finds fault with them.
 * @param base the home's name to build on
 */
export function proposeNetworks(record: VisitRecord, catalogue: Catalogue, policy: Policy, base: string): NameProposal {
  const wrong = nameProblem(base, record, catalogue) ?? lengthProblem(base)
  if (wrong) return { problem: wrong }
  const units = standing(record.units).map((unit) => ({
    unit,
    model: modelOf(unit, catalogue) ?? null,
    name: unitName(unit)
  }))
  const senders = units.filter(
    ({ unit, model }) => model !== null && model.radios.length > 0 && unit.facts.role !== 'modem'
  )
  const heads = senders.filter(({ unit }) => unit.facts.role !== 'extender')
  const bandsOf = (of: typeof senders): Band[] =>
    allBands.filter((band) => of.some(({ model }) => model!.radios.some((radio) => radio.band === band)))
  const bands = bandsOf(heads).length ? bandsOf(heads) : (['2.4', '5'] as Band[])
  const school = record.brief.facts.bandNames ?? policy.bandNames
  /** The bands of one name each, by the school: one name for all, or one a band. */
  const perName = (of: readonly Band[]) =>
    school === 'one-a-band'
      ? of.map((band) => ({ suffix: bands.length > 1 ? suffixes[band] : '', bands: [band] }))
      : [{ suffix: '', bands: [...of] }]
  const advice = adviseSecurity(standing(thingsOf(record, 'device')), policy.leastSecurity)
  const segments = standing(record.segments)
  const [home, guests] = landings(segments)
  const known = standing(record.networks)
  const networks: ProposedNetwork[] = []
  const taken = new Set<string>()
  const add = (set: ProposedNetwork['set'], why: string, fits: (network: Network) => boolean) => {
    const existing = known.find((network) => !taken.has(network.id) && fits(network))?.id ?? null
    if (existing) taken.add(existing)
    networks.push({ existing, set, why })
  }
  const landsIn = (segment: string | undefined) => (segment === undefined ? {} : { segment })
  for (const proposal of perName(bands)) {
    add(
      {
        ssid: `${base}${proposal.suffix}`,
        use: 'main',
        bands: proposal.bands,
        security: advice.main,
        isolated: false,
        ...landsIn(home)
      },
      school === 'one-name'
        ? 'One name for all bands: devices choose by themselves.'
        : `One name a band: ${proposal.bands[0]} GHz by itself.`,
      ({ facts }) =>
        (facts.use ?? 'main') === 'main' &&
        facts.extender === undefined &&
        (facts.ssid === `${base}${proposal.suffix}` ||
          facts.ssid === undefined ||
          school === 'one-name' ||
          Boolean(facts.bands?.includes(proposal.bands[0]!)))
    )
  }
  for (const known of senders.filter(
    ({ unit, model }) => unit.facts.role === 'extender' && !isMeshMember({ model, unit })
  )) {
    for (const proposal of perName(bandsOf([known]))) {
      add(
        {
          ssid: `${base}${proposal.suffix}${policy.extenderNames === 'suffix' ? '-ext' : ''}`,
          use: 'main',
          bands: proposal.bands,
          security: advice.main,
          isolated: false,
          extender: known.unit.id,
          ...landsIn(home)
        },
        policy.extenderNames === 'suffix'
          ? `${known.name}: the router’s name with a suffix, so that one sees where one is.`
          : `${known.name}: the router’s name, so that devices move over by themselves.`,
        ({ facts }) =>
          facts.extender === known.unit.id &&
          (school === 'one-name' || Boolean(facts.bands?.includes(proposal.bands[0]!)))
      )
    }
  }
  const guestThere = known.some(({ facts }) => facts.use === 'guest' && !forOld(facts))
  if (record.choices.guest?.answer === 'yes' || guestThere) {
    const guestName = known.find(({ facts }) => facts.use === 'guest' && !forOld(facts))?.facts.ssid
    const keepsName =
      guestName !== undefined &&
      nameProblem(guestName, record, catalogue) === null &&
      !networks.some(({ set }) => set.ssid === guestName)
    add(
      {
        ssid: keepsName ? guestName : `${base}-guest`,
        use: 'guest',
        bands: bands.filter((band) => band !== '6'),
        security: advice.main === 'wpa3' ? 'wpa2-wpa3' : advice.main,
        isolated: true,
        ...landsIn(guests)
      },
      'Guests: apart from the home’s devices, a passphrase of their own.',
      ({ facts }) => facts.use === 'guest' && !forOld(facts)
    )
  }
  if (advice.apart) {
    add(
      {
        ssid: `${base}${OLD}`,
        use: 'guest',
        bands: ['2.4'],
        security: advice.apart.security,
        isolated: true,
        ...landsIn(guests)
      },
      `For ${advice.apart.devices.join(', ')}: too old for the others, so kept apart.`,
      ({ facts }) => facts.use === 'guest' && forOld(facts)
    )
  }
  return {
    networks,
    surplus: known.filter(({ id, facts }) => !taken.has(id) && (facts.use ?? 'main') === 'main').map(({ id }) => id)
  }
}

/** That the longest suffix does not fit behind a name; null where it does. */
function lengthProblem(base: string): string | null {
  const room = MOST_OCTETS - '-guest'.length
  if (utf8Length(base) <= room) return null
  return `is ${utf8Length(base)} octets long: with a suffix for guests it would be over ${MOST_OCTETS}. Take one of at most ${room}`
}

/** The segments that the home's devices land in, and guests. */
function landings(segments: readonly Segment[]): [home: string | undefined, guests: string | undefined] {
  const landing = (use: 'home' | 'guests') => segments.find(({ facts }) => facts.use === use)?.id
  return [landing('home'), landing('guests') ?? landing('home')]
}

const OLD = '-old'
const forOld = ({ security, ssid }: Facts<'network'>) =>
  security === 'wep' || security === 'wpa-tkip' || Boolean(ssid?.endsWith(OLD))
