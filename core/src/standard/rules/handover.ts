import { choiceNames, choices } from '../../record/answers'
import { packDigest } from '../../record/seal'
import { askedRule, breaks, holds, listed, unproven, type Home, type Place, type Rule } from '../rule'

const atChoice = (field: string): Place => ({ stage: 'handover', kind: 'choice', id: field, field: 'answer' })
const atPack: Place = { stage: 'handover', kind: 'pack', id: 'pack', field: 'given' }

const hasTelephone = ({ record }: Home) => record.brief.facts.telephone === true

/** Rules of Hand over. */
export const handoverRules: Rule[] = [
  {
    id: 'hand-choices', stage: 'handover', level: 'must', says: 'Guest network, parental controls, security service, updates, lamp: asked and answered.',
    judge: ({ record }) => {
      const open = choiceNames.filter((choice) => !record.choices[choice])
      if (open.length === 0) return [holds('All five are asked and answered.')]
      return [unproven(`Not asked yet: ${listed(open.map((choice) => choices[choice].toLowerCase()))}.`, 'Ask the customer.', atChoice(open[0]!))]
    }
  },
  askedRule('hand-lamp', 'handover', 'must', 'If lamps are off or dim, the customer was told what a dark lamp means.',
    'Was the customer told that a dark lamp means that all is well?', ({ record }) => ['off', 'dim'].includes(record.choices.lamp?.answer ?? '')),
  {
    id: 'hand-pack', stage: 'handover', level: 'must', says: "The customer's pack was made from this very record and given.",
    judge: ({ record }) => {
      const { madeDigest, givenDigest } = record.pack
      if (!madeDigest) return [unproven('The pack has not been made.', 'Make the pack.', atPack)]
      const current = packDigest(record)
      if (madeDigest !== current) return [breaks('The record changed after the pack was made.', 'Make the pack again.', atPack)]
      if (givenDigest !== current) return [unproven('The pack is made but not given.', 'Give it, then say how.', atPack)]
      return [holds('Made from this very record and given.')]
    }
  },
  askedRule('hand-voice-power', 'handover', 'must', 'Telephone through the modem: told that no call, emergency ones included, works in a power cut.',
    'Was the customer told that no call works in a power cut, emergency calls included?', hasTelephone),
  {
    id: 'hand-custody', stage: 'handover', level: 'must', says: 'Who keeps which secret, and until when, is answered.',
    judge: ({ record: { custody } }) => {
      const at = { stage: 'handover', kind: 'custody', id: 'custody', field: 'custody' } as const
      if (!custody) return [unproven('Who keeps the secrets is not answered.', 'Ask the customer.', at)]
      const lacks = custody.custody !== 'company-keeps' ? [] : [...(custody.keeps?.length ? [] : ['which secrets we keep']), ...(custody.until ? [] : ['until when'])]
      return lacks.length ? [unproven(`It is not said ${lacks.join(' and ')}.`, 'Ask the customer, and record it.', at)] : [holds(custody.until ? `We keep some until ${custody.until}.` : 'Answered.')]
    }
  },
  askedRule('hand-cautions', 'handover', 'must', 'The cautions that this visit calls for were shown and acknowledged.',
    'Have you read the cautions of this visit and kept to them?', ({ units }) => units.length > 0)
]
