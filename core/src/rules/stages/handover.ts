import { atNetwork } from './network-place'
import { ofTheirs, withPassphraseOfTheirs } from './theirs'
import { choiceNames, choices, type Choice } from '../../record/answers'
import { packDigest } from '../../record/seal'
import { recordSeen, type Folded } from '../../history/fold'
import { headsOf, linesOfKinds, linesSaying } from '../../history/history'
import { answerKey } from '../../record/keys'
import { cautionsOf } from '../cautions'
import {
  askedRule,
  atUnit,
  breaks,
  holds,
  judgeAnswer,
  noLonger,
  unproven,
  type Home,
  type Place,
  type Rule,
  type Verdict,
  rule
} from '../rule'
import { listed } from '../../values/list'
import { passphraseOf } from '../../work/wifi/passphrase'
import { factOf } from '../../work/units/run-as-one'
import type { KnownUnit } from '../../work/units/known-unit'
import { wifiPassphrase } from './wifi-passphrase'
import { wifiName } from './wifi'
import { placeFinal } from './place'
import { proveRooms } from './prove'
import { firmMinimum } from './firmware'
import { telephoneNotSaid } from './telephone'

const atChoice = (field: string): Place => ({ stage: 'handover', kind: 'choice', id: field, field: 'answer' })
const atPack: Place = { stage: 'handover', kind: 'pack', id: 'pack', field: 'given' }

const hasTelephone = ({ record }: Home) => record.brief.facts.telephone === true

/** What in the record or in the models speaks against what was chosen; null where nothing does. */
export function contradiction(
  { networks, units }: Home,
  choice: Choice,
  answer: string
): { message: string; remedy: string } | null {
  const named = (list: readonly KnownUnit[]) => listed(list.map(({ name }) => name))
  if (choice === 'guest') {
    const guests = networks.filter(({ facts }) => facts.use === 'guest')
    if (answer === 'yes' && guests.every(({ facts }) => facts.ssid === undefined))
      return {
        message: 'A guest network was chosen, and none is recorded.',
        remedy: 'Set one up and record it under Configure, Wi-Fi; or ask again.'
      }
    if (answer === 'no' && guests.length > 0)
      return { message: 'No guest network was chosen, and one is recorded.', remedy: 'Take it out, or ask again.' }
  }
  if (choice === 'updates') {
    // What a model can do in one way only is no choice.
    const free = units.filter(({ model }) => model?.updates === 'either')
    const wanted = answer === 'automatic' ? 'automatic' : 'managed'
    const setTo = (known: KnownUnit) => factOf(units, known, 'updates').value
    const other = free.filter((known) => setTo(known) !== undefined && setTo(known) !== wanted)
    if (other.length)
      return {
        message: `${answer === 'no' ? 'No automatic updates were' : `Updates ${answer} were`} chosen, and ${named(other)} ${other.length === 1 ? 'is' : 'are'} set to ${setTo(other[0]!)!}.`,
        remedy: 'Set it as it was chosen under Configure, Firmware; or ask again.'
      }
    const able = units.filter(({ model }) => model !== null && model.updates !== 'none')
    if (free.length === 0 && able.length > 0 && able.every(({ model }) => model!.updates !== wanted))
      return {
        message: `Updates ${answer} were chosen, and ${named(able)} can only be ${able[0]!.model!.updates}.`,
        remedy: 'Tell the customer, and ask again.'
      }
  }
  // Whether lamps can be dimmed the catalogue does not tell.
  if (choice === 'lamp' && answer === 'off') {
    const lit = units.filter(({ model }) => (model?.lamps.length ?? 0) > 0)
    if (lit.length > 0 && lit.every(({ model }) => !model!.lampsCanBeOff))
      return {
        message: `Lamps off were chosen, and those of ${named(lit)} cannot be switched off.`,
        remedy: 'Tell the customer, and ask again.'
      }
  }
  return null
}

/** Whether a unit's lamps can be off at all, so that a dark one may mean that all is well. */
const canBeDark = ({ units }: Home) => units.some(({ model }) => model?.lampsCanBeOff === true)

export const handChoices = rule({
  id: 'hand-choices',
  name: 'Choices',
  stage: 'handover',
  level: 'must',
  minutes: 3,
  needs: ['model'],
  statement: 'Guest network, parental controls, security service, updates, lamp: asked and answered.',
  judge: (home) => {
    const { record } = home
    const open = choiceNames.filter((choice) => !record.choices[choice])
    const against = choiceNames.flatMap((choice) => {
      const told = record.choices[choice] && contradiction(home, choice, record.choices[choice].answer)
      return told ? [{ choice, ...told }] : []
    })
    if (against.length > 0)
      return against.map(({ choice, message, remedy }) => breaks(message, remedy, atChoice(choice)))
    const purposeless = home.networks.find(({ facts }) => facts.use === undefined)
    if (purposeless && record.choices.guest?.answer === 'no')
      return [
        unproven(
          `No guest network was chosen; what ${purposeless.facts.ssid ?? 'a network'} is for is not recorded, to hold the answer against.`,
          'Say what it is for under Configure, Wi-Fi.',
          atNetwork(purposeless, 'use')
        )
      ]
    const unsaid = home.units.find(
      (known) => known.model?.updates === 'either' && factOf(home.units, known, 'updates').value === undefined
    )
    if (open.length === 0 && unsaid)
      return [
        unproven(
          `All five are answered; how ${unsaid.name} is updated is not recorded, to hold the answer against.`,
          'Record it under Configure, Firmware.',
          atUnit('configure', unsaid.unit, 'updates')
        )
      ]
    if (open.length === 0) return [holds('All five are asked and answered, as the record and the models have it.')]
    return [
      unproven(
        `Not asked yet: ${listed(open.map((choice) => choices[choice].toLowerCase()))}.`,
        'Ask the customer.',
        atChoice(open[0]!)
      )
    ]
  }
})

export const handLamp = askedRule({
  id: 'hand-lamp',
  name: 'Dark lamp told',
  stage: 'handover',
  level: 'must',
  minutes: 1,
  statement: 'If lamps are off or dim, the customer was told what a dark lamp means.',
  asks: 'Was the customer told that a dark lamp means that all is well?',
  applies: (home) =>
    home.record.choices.lamp?.answer === 'dim' || (home.record.choices.lamp?.answer === 'off' && canBeDark(home))
})

const makingPack = new Set(['pack.made'] as const)

/** Whether the pack that was made last still says what the record does; one of before, which signed for less, by the record that it was made from. */
export function isPackFresh({ record, history }: Folded): boolean {
  const { madeDigest } = record.pack
  const now = packDigest(record)
  if (madeDigest === null || madeDigest === now) return madeDigest !== null
  const made = linesOfKinds(history, makingPack).at(-1)
  return made !== undefined && packDigest(recordSeen(history, made.seq)) === now
}

/** Networks that the pack names and cannot tell how to join. */
const withoutPassphrase = (home: Home) =>
  home.networks.filter(
    (network) =>
      network.facts.ssid !== undefined &&
      network.facts.security !== 'open' &&
      passphraseOf(home.record, network) === null &&
      !ofTheirs(home, network) &&
      !withPassphraseOfTheirs(home, network)
  )

export const handPack = rule({
  id: 'hand-pack',
  name: 'Pack',
  stage: 'handover',
  level: 'must',
  minutes: 3,
  statement:
    "The customer's pack was made from this very record, holds everything the customer needs once our copy is erased, and was given.",
  afterAnywhere: [wifiName, wifiPassphrase, placeFinal, handChoices, proveRooms, firmMinimum],
  judge: (home) => {
    const { madeDigest, givenDigest } = home.record.pack
    if (!madeDigest) return [unproven('The pack has not been made.', 'Make the pack.', atPack)]
    if (!isPackFresh(home))
      return [noLonger(breaks('The record changed after the pack was made.', 'Make the pack again.', atPack))]
    if (givenDigest !== madeDigest)
      return [unproven('The pack is made but not given.', 'Give it, then say how.', atPack)]
    const without = withoutPassphrase(home)
    if (without.length)
      return without.map((network) =>
        breaks(
          `The pack has no passphrase of ${network.facts.ssid!}: the customer could not join anything to it.`,
          'Put its passphrase into the vault, and make the pack again.',
          { stage: 'configure', kind: 'secret', id: network.id, field: 'wifi-passphrase' }
        )
      )
    return [holds('Made from this very record and given.')]
  }
})

export const handVoicePower = askedRule({
  id: 'hand-voice-power',
  name: 'No calls in a power cut',
  stage: 'handover',
  level: 'must',
  minutes: 1,
  statement: 'Telephone through the modem: told that no call, emergency ones included, works in a power cut.',
  asks: 'Was the customer told that no call works in a power cut, emergency calls included?',
  applies: hasTelephone,
  unknown: telephoneNotSaid
})

export const handCustody = rule({
  id: 'hand-custody',
  name: 'Who keeps the secrets',
  stage: 'handover',
  level: 'must',
  minutes: 1,
  statement: 'Who keeps which secret, and until when, is answered.',
  judge: ({ record: { custody } }) => {
    const at = { stage: 'handover', kind: 'custody', id: 'custody', field: 'custody' } as const
    if (!custody) return [unproven('Who keeps the secrets is not answered.', 'Ask the customer.', at)]
    const lacks =
      custody.custody !== 'company-keeps'
        ? []
        : [...(custody.keeps?.length ? [] : ['which secrets we keep']), ...(custody.until ? [] : ['until when'])]
    return lacks.length
      ? [unproven(`It is not said ${lacks.join(' and ')}.`, 'Ask the customer, and record it.', at)]
      : [holds(custody.until ? `We keep some until ${custody.until}.` : 'Answered.')]
  }
})

export const handCautions = rule({
  id: 'hand-cautions',
  name: 'Cautions',
  stage: 'handover',
  level: 'must',
  minutes: 1,
  statement: 'The cautions that this visit calls for were shown and acknowledged.',
  asks: 'Have you read the cautions of this visit and kept to them?',
  judge: (home) => (home.units.length > 0 ? [judgeCautions(home)] : [])
})

/** Whoever read the cautions read those that the visit called for then: one that came in since was read by nobody. */
function judgeCautions(home: Home): Verdict {
  const place: Place = { stage: 'handover', kind: 'answer', id: 'hand-cautions', field: 'answer' }
  const { record, history, catalogue } = home
  const given = record.answers['hand-cautions']
  const now = cautionsOf(record, catalogue)
  if (given?.answer !== 'yes') return judgeAnswer(home, 'hand-cautions', place, null)
  const said = linesSaying(history, answerKey('hand-cautions'), 'yes')
  const unread = headsOf(history, said).map(({ seq }) => {
    const then = new Set(cautionsOf(recordSeen(history, seq), catalogue).map(({ id }) => id))
    return now.filter(({ id }) => !then.has(id))
  })
  if (unread.some((missed) => missed.length === 0)) return judgeAnswer(home, 'hand-cautions', place, null)
  const named = listed(unread.at(-1)!.map(({ id }) => id.replaceAll('-', ' ')))
  return noLonger(
    unproven(`Since the cautions were read came in: ${named}.`, 'Read them, then answer once more.', place)
  )
}

/** Rules of Hand over. */
export const handoverRules: readonly Rule[] = [
  handChoices,
  handLamp,
  handPack,
  handVoicePower,
  handCustody,
  handCautions
]
