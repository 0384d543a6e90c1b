import { allRules } from '@pasado/core/rules/all'
import { carriedEntries } from '@pasado/core/record/carry-over'
import { complete, idOf, network, node, opened, router, study, type Log } from '@pasado/testing/logbook'
import { channels, type RuleCase } from './prove-rule-cases'

/** A visit that takes over what stands at the home, all of it received with its opening. */
const again =
  (reason: string, before: () => Log = complete) =>
  (): Log => {
    const log = opened({ reason })
    for (const { kind, body } of carriedEntries(before().record(), log.record().brief.facts))
      log.write(kind, body as never)
    for (const entry of log.entries) Object.assign(entry, { received: log.entries[0]!.received })
    return log
  }
const event = (what: 'reset' | 'updated') => (log: Log) => log.write('unit.event', { unit: node, what })
/** Nobody knows what its units send on. */
const unheard = () =>
  [router, node].reduce((log, id) => log.write('unit.set', { id, set: { autoChannels: null } }), complete())
const looked = (log: Log) =>
  log
    .write('lamp.seen', { unit: node, lamps: [{ lamp: 'status', colour: 'white', pattern: 'solid' }] })
    .write('unit.event', { unit: node, what: 'tested-good' })
    .write('rule.answered', { rule: 'place-clear', subject: node, answer: 'yes' })
const found = (log: Log) =>
  log
    .write('fault.search', { search: idOf('search'), about: {} })
    .write('fault.found', { search: idOf('search'), cause: 'line-down', end: 'provider', probability: 0.9 })
const waiting = () =>
  complete().write('wait.started', { id: idOf('wait'), what: 'until it settles', unit: node, usualMin: 3, mostMin: 5 })

const spared = allRules.filter(({ sparesUntouched }) => sparesUntouched).map(({ id }) => id)
/** The same units, but written by hand as if they had stood here: nothing that a technician says spares them. */
const saidToHaveStood = () =>
  [router, node].reduce(
    (log, id) =>
      log.write('unit.set', {
        id,
        set: { name: id, model: 'ostrel-tern', modelVersion: 1, role: 'node', stayed: true, used: true }
      }),
    opened()
  )
const set = (facts: Record<string, unknown>) => (log: Log) => log.write('unit.set', { id: node, set: facts })

/** Rules that hold of it, as what they read was recorded by the last visit. */
const recordedThen = [
  'brief-method',
  'kit-identity',
  'kit-role',
  'place-height',
  'place-final',
  'wifi-pushbutton-off',
  'cred-local-admin',
  'cred-account',
  'firm-updates'
]

/** What stood here before and was not touched, and what of it is asked once it was. */
const stoodCases: RuleCase[] = [
  ...spared.map((rule): RuleCase => [
    rule,
    'what stood before is asked nothing while nobody touches it',
    again('extend'),
    () => 0,
    // Seen at its place, and written down, it may well hold.
    recordedThen.includes(rule) ? 'holds' : 'not-here'
  ]),
  ['cred-admin', 'what stood before was reset', again('extend'), event('reset'), 'unproven'],
  [
    'cred-local-admin',
    'what stood before was set otherwise',
    again('extend'),
    (log) => [router, node].forEach((id) => log.write('unit.set', { id, set: { localAdminOnly: null } })),
    'unproven'
  ],
  ['firm-recorded', 'what stood before was updated', again('extend'), event('updated'), 'unproven'],
  [
    'start-prompts',
    'what stood before was reset',
    again('extend'),
    (log) => log.write('unit.event', { unit: router, what: 'reset' }),
    'unproven'
  ],
  ['place-final', 'what stood before lost its place', again('extend'), set({ place: null }), 'unproven'],
  ['cred-admin', 'what somebody says stood before', saidToHaveStood, () => 0, 'unproven'],
  ['kit-identity', 'what somebody says stood before', saidToHaveStood, () => 0, 'unproven'],
  ['cred-admin', 'looked at, tested and asked about, it was not touched', again('extend'), looked, 'not-here'],
  ['radio-channel', 'what stood before chooses by itself', again('extend'), () => 0, 'holds'],
  ['radio-channel', 'what stood before sends as it did', again('extend', unheard), () => 0, 'not-here'],
  ['radio-channel', 'what stood before was set to a channel', again('extend'), channels([10, 36, 80]), 'breaks'],
  ['firm-minimum', 'the version that it runs is asked for all the same', again('extend'), () => 0, 'unproven'],
  ['start-good-lamp', 'a good lamp is asked for at the end', again('extend'), () => 0, 'unproven']
]

/** What was done at all, what is still running; and what held although it was not asked, not known or only part of a word. */
export const scopeCases: RuleCase[] = [
  ...stoodCases,
  ['brief-scope', 'units were installed', complete, () => 0, 'holds'],
  ['brief-scope', 'nothing was yet', opened, () => 0, 'unproven'],
  [
    'brief-scope',
    'nothing was, and the visit says why',
    opened,
    (log) => log.write('brief.set', { set: { noUnitReason: 'Nobody was at home.' } }),
    'holds'
  ],
  [
    'brief-scope',
    'what was installed was taken out again',
    complete,
    (log) =>
      log.write('thing.removed', { thing: 'unit', id: router }).write('thing.removed', { thing: 'unit', id: node }),
    'unproven'
  ],
  [
    'brief-scope',
    'one was brought beside what stood there before, and taken away again',
    again('extend'),
    (log) =>
      log
        .write('unit.set', { id: idOf('spare'), set: { name: 'Spare', model: 'ostrel-tern', modelVersion: 1 } })
        .write('unit.set', { id: idOf('spare'), set: { spare: 'taken-back' } })
        .write('thing.removed', { thing: 'unit', id: idOf('spare') }),
    'unproven'
  ],
  ['brief-scope', 'a new installation of what stood there before', again('new'), () => 0, 'unproven'],
  ['brief-scope', 'nothing was done to what stood there before', again('extend'), () => 0, 'unproven'],
  [
    'brief-scope',
    'what stood there before was moved',
    again('extend'),
    (log) => log.write('unit.event', { unit: node, what: 'moved' }),
    'holds'
  ],
  [
    'brief-scope',
    'only a note was written and the reason of the visit recorded',
    again('extend'),
    (log) => log.write('note.written', { text: 'Rang twice.' }).write('brief.set', { set: { reason: 'extend' } }),
    'unproven'
  ],
  [
    'brief-scope',
    'a room that is no longer listed is no work',
    again('extend'),
    (log) => log.write('thing.removed', { thing: 'room', id: study }),
    'unproven'
  ],
  [
    'cred-admin',
    'a unit written in the moment the visit was opened, from a person’s device, did not stand there',
    () => opened({ reason: 'extend' }),
    (log) => {
      log.write('unit.set', { id: node, set: { name: 'Node', model: 'ostrel-tern', modelVersion: 1, role: 'node' } })
      Object.assign(log.entries.at(-1)!, { received: log.entries[0]!.received, from: idOf('theirs') })
    },
    'unproven'
  ],
  ['brief-scope', 'a fault, and what it was is not recorded', again('fault'), () => 0, 'unproven'],
  ['brief-scope', 'a fault that was looked for and found', again('fault'), found, 'holds'],
  [
    'brief-scope',
    'a fault that is still looked for',
    again('fault'),
    (log) => log.write('fault.search', { search: idOf('search'), about: {} }),
    'unproven'
  ],
  [
    'start-prompts',
    'answered with no unasked, as the company does',
    complete,
    (log) => log.write('prompt.answered', { unit: router, prompt: 'usage', answer: 'no', by: 'default' }),
    'holds'
  ],
  [
    'start-prompts',
    'answered with yes, and nobody was asked',
    complete,
    (log) => log.write('prompt.answered', { unit: router, prompt: 'usage', answer: 'yes', by: 'default' }),
    'unproven'
  ],
  [
    'firm-same',
    'the version of one of two alike is not recorded',
    () => complete().write('unit.set', { id: router, set: { model: 'ostrel-tern' } }),
    (log) => log.write('unit.set', { id: node, set: { firmwareAfter: null } }),
    'unproven'
  ],
  [
    'wifi-name',
    'a short name of the customer’s, written together',
    () => complete().write('brief.set', { set: { customerName: 'Ann Lee' } }),
    (log) => log.write('network.set', { id: network, set: { ssid: 'LeeFamily' } }),
    'breaks'
  ],
  ['waits-ended', 'nothing was waited for', complete, () => 0, 'not-here'],
  ['waits-ended', 'a wait still runs', waiting, () => 0, 'unproven'],
  ['waits-ended', 'the wait has ended', waiting, (log) => log.write('wait.ended', { id: idOf('wait') }), 'holds']
]
