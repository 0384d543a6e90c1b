import { carriedEntries } from '@pasado/core/record/carry-over'
import { complete, idOf, network, node, opened, router, type Log } from '@pasado/testing/logbook'
import type { RuleCase } from './prove-rule-cases'

/** A visit that takes over what stands at the home, all of it received with its opening. */
const again = (reason: string) => (): Log => {
  const log = opened({ reason })
  for (const { kind, body } of carriedEntries(complete().record(), log.record().brief.facts))
    log.write(kind, body as never)
  for (const entry of log.entries) Object.assign(entry, { received: log.entries[0]!.received })
  return log
}
const found = (log: Log) =>
  log
    .write('fault.search', { search: idOf('search'), about: {} })
    .write('fault.found', { search: idOf('search'), cause: 'line-down', end: 'provider', probability: 0.9 })
const waiting = () =>
  complete().write('wait.started', { id: idOf('wait'), what: 'until it settles', unit: node, usualMin: 3, mostMin: 5 })

/** What was done at all, what is still running; and what held although it was not asked, not known or only part of a word. */
export const scopeCases: RuleCase[] = [
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
