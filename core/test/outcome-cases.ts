import type { Outcome } from '@pasado/core/rules/rule'
import { complete, home, idOf, node, opened, router, type Log } from '@pasado/testing/logbook'
import type { RuleCase } from './prove-rule-cases'

const answered = (rule: string, answer: 'yes' | 'no') => (log: Log) => log.write('rule.answered', { rule, answer })
const phone = () => opened({ telephone: true })
const custody = (body: Record<string, unknown>) => (log: Log) =>
  log.write('custody.answered', { custody: 'company-keeps', ...body })

/** Rules that a visit without any unit, segment or network has nothing to be held to by. */
const bareVisit = [
  'brief-method',
  'kit-identity',
  'kit-label',
  'kit-role',
  'place-height',
  'place-count',
  'place-final',
  'place-outlet',
  'place-hops',
  'place-spacing',
  'cable-mode',
  'start-good-lamp',
  'start-fresh-lamp',
  'start-in-time',
  'start-prompts',
  'addr-valid',
  'addr-unique',
  'addr-pool',
  'addr-single-nat',
  'addr-reachable',
  'addr-applied',
  'wifi-naming-school',
  'wifi-security',
  'wifi-passphrase',
  'wifi-segment',
  'wifi-pushbutton-off',
  'cred-admin',
  'cred-local-admin',
  'cred-account',
  'firm-recorded',
  'firm-minimum',
  'firm-updates',
  'prove-rooms',
  'prove-wired',
  'hand-cautions'
]

/** Outcomes that the other cases leave out: nothing of the kind is here, a person answered no, what is rarely so. */
export const outcomeCases: RuleCase[] = [
  ...bareVisit.map((rule): RuleCase => [
    rule,
    'nothing of the kind is here',
    () => opened({ noUnitReason: 'A survey only.' }),
    () => 0,
    'not-here'
  ]),
  ...['kit-identity', 'prove-source', 'prove-rooms'].map((rule): RuleCase => [
    rule,
    'nothing is installed yet, and nothing says why',
    opened,
    () => 0,
    'unproven'
  ]),
  ['brief-line-alarm', 'asked, and something is on the line', phone, answered('brief-line-alarm', 'no'), 'breaks'],
  ['addr-applied', 'not every page was applied', complete, answered('addr-applied', 'no'), 'breaks'],
  [
    'hand-lamp',
    'the customer was not told',
    complete,
    (log) => {
      log.write('choice.answered', { choice: 'lamp', answer: 'off' })
      answered('hand-lamp', 'no')(log)
    },
    'breaks'
  ],
  ['hand-voice-power', 'told', phone, answered('hand-voice-power', 'yes'), 'holds'],
  ['hand-voice-power', 'not told', phone, answered('hand-voice-power', 'no'), 'breaks'],
  ['hand-cautions', 'not kept to', complete, answered('hand-cautions', 'no'), 'breaks'],
  ['hand-custody', 'we keep some, of which nobody said which and until when', complete, custody({}), 'unproven'],
  ['hand-custody', 'we keep some, without an end', complete, custody({ keeps: ['admin-password'] }), 'unproven'],
  [
    'hand-custody',
    'we keep some until a day',
    complete,
    custody({ keeps: ['admin-password'], until: '2027-01-31' }),
    'holds'
  ],
  [
    'kit-complete',
    'an item is missing and nothing is said of it',
    complete,
    (log) => log.write('items.checked', { box: idOf('box'), items: ['network cable 1 m'], state: 'missing' }),
    'breaks'
  ],
  [
    'kit-family',
    'all of one model',
    complete,
    (log) => {
      for (const id of [router, node])
        log.write('unit.set', { id, set: { model: 'fenmarrow-lattice-3', modelVersion: 1 } })
    },
    'holds'
  ],
  ...['addr-unique', 'addr-pool'].map((rule): RuleCase => [
    rule,
    'no address',
    complete,
    (log) => log.write('host.set', { id: idOf('hx'), set: { name: 'Printer', segment: home } }),
    'unproven'
  ]),
  [
    'wifi-guest',
    'a guest network without a passphrase of its own yet',
    complete,
    (log) =>
      log.write('network.set', {
        id: idOf('guest'),
        set: { ssid: 'Razorbill guests', use: 'guest', security: 'wpa2-aes', isolated: true }
      }),
    'unproven'
  ],
  [
    'addr-no-overlap',
    'two ranges apart',
    complete,
    (log) =>
      log.write('segment.set', { id: idOf('seg2'), set: { name: 'Guests', use: 'guests', cidr: '192.168.7.0/24' } }),
    'holds'
  ],
  [
    'addr-no-overlap',
    'only one range',
    complete,
    (log) => log.write('segment.set', { id: home, set: { name: 'Home' } }),
    'not-here'
  ]
]

type Sayable = Exclude<Outcome, 'waived'>

/** What a rule never says, by what it is about. Everything else it says in some case. */
export const never: Readonly<Record<Sayable, readonly string[]>> = {
  holds: [],
  // What is not recorded, not answered or not looked at is unproven, not broken; a note only informs; a line with a secret in it is not taken at all.
  breaks: [
    'brief-contact',
    'brief-service',
    'brief-scope',
    'waits-ended',
    'cable-modem-restart',
    'start-prompts',
    'firm-recorded',
    'hand-custody',
    'radio-radar',
    'cred-no-leak',
    'place-final'
  ],
  // These read what is recorded; where it is not, they have nothing to say, and another rule asks for it.
  unproven: ['radio-plan', 'radio-radar', 'cred-no-leak'],
  // Every visit has these.
  'not-here': [
    'brief-contact',
    'brief-service',
    'brief-scope',
    'addr-one-dhcp',
    'hand-choices',
    'hand-pack',
    'hand-custody'
  ]
}
