import { describe, expect, it } from 'vitest'
import { pathText, problemsOf } from '@pasado/core/values/problem'
import { draftEntry } from '@pasado/core/record/entry'
import { checkField, type ThingKind } from '@pasado/core/record/facts'
import { idOf } from '@pasado/testing/logbook'

describe('a field is checked as the server will check it', () => {
  it.each<[ThingKind, string, unknown, unknown]>([
    ['brief', 'street', '4 Lantern Rise', '4 Lantern Rise'],
    ['brief', 'speedDownMbps', 500, 500],
    ['brief', 'accessLine', 'coax', 'coax'],
    ['unit', 'mac', '0000.5E00.53AF', '00:00:5e:00:53:af'],
    ['unit', 'mac', ' 00-00-5e-00-53-af ', '00:00:5e:00:53:af'],
    ['unit', 'serial', 'FL3-0452-7KQ8', 'FL3-0452-7KQ8'],
    ['unit', 'heightM', 0, 0],
    ['unit', 'firmwareAfter', 'v3.0.4_b', 'v3.0.4_b'],
    ['segment', 'cidr', '10.0.0.0/8', '10.0.0.0/8'],
    ['host', 'address', '192.168.20', '192.168.20'],
    ['network', 'ssid', 'café 🐚', 'café 🐚'],
    ['network', 'bands', ['2.4', '5'], ['2.4', '5']]
  ])('%s %s: %j is kept as %j', (kind, field, value, kept) =>
    expect(checkField(kind, field, value)).toEqual({ value: kept })
  )

  it.each<[ThingKind, string, unknown, string]>([
    ['brief', 'street', '   ', 'must not be blank'],
    ['brief', 'street', 'x'.repeat(121), 'is too long; at most 120'],
    ['brief', 'street', 'two\nlines', 'one line'],
    ['brief', 'street', '\ud83d', 'not well-formed'],
    ['brief', 'speedDownMbps', 0, 'must be above 0'],
    ['brief', 'country', 'Xs', 'two capital letters'],
    ['unit', 'mac', '02:1a:2b:3c:4d', 'twelve hexadecimal digits'],
    ['unit', 'mac', '01:00:5e:90:10:00', 'multicast'],
    ['unit', 'mac', 'ff:ff:ff:ff:ff:ff', 'broadcast'],
    ['unit', 'mac', '00:00:00:00:00:00', 'all zeros'],
    ['unit', 'serial', '!', '2 to 40 letters'],
    ['unit', 'heightM', -1, 'must be 0 or more'],
    ['unit', 'heightM', 120, 'at most 30 m'],
    ['unit', 'firmwareAfter', '3..1', 'empty part'],
    ['segment', 'cidr', '192.168.1.7/24', 'the network itself is 192.168.1.0/24'],
    ['segment', 'cidr', '192.168.1.0', 'a slash and a prefix'],
    ['segment', 'cidr', '192.168.1.0/33', 'a prefix 0–32'],
    ['segment', 'gateway', '192.168.1.256', 'must be an IPv4 address'],
    ['network', 'ssid', '', 'must not be empty'],
    ['network', 'ssid', 'Kelp House and all of its outhouses', 'at most 32'],
    ['network', 'ssid', '🐚🐚🐚🐚🐚🐚🐚🐚🐚', 'takes 36 octets'],
    ['unit', 'colour', 'red', 'not a field']
  ])('%s %s: %j is not acceptable, and told why', (kind, field, value, said) => {
    const checked = checkField(kind, field, value)
    expect('problem' in checked && checked.problem).toContain(said)
  })
})

describe('an entry', () => {
  const whole = {
    id: '0199c000-0000-7000-8000-00000000000a',
    visit: idOf('visit'),
    at: '2026-01-05T09:00:00+01:00',
    from: idOf('device'),
    base: 0,
    kind: 'note.written',
    body: { text: 'fine' }
  }
  const refusals = (change: Record<string, unknown>) => {
    const checked = draftEntry.safeParse({ ...whole, ...change }, { reportInput: true })
    return checked.success ? [] : problemsOf(checked.error).map(({ path, message }) => `${pathText(path)}: ${message}`)
  }

  it('that is whole is taken', () => expect(refusals({})).toEqual([]))

  it.each<[string, Record<string, unknown>, string]>([
    ['an id of version 4', { id: '3f2b8c1e-9a4d-4c7b-8e2f-1a2b3c4d5e6f' }, 'id: must be a UUID of version 7'],
    ['a time without its offset', { at: '2026-01-05T09:00:00' }, 'at: must be a time with its offset'],
    ['a base below 0', { base: -1 }, 'base: must be at least 0'],
    ['no base', { base: undefined }, 'base: '],
    ['a field too many', { mood: 'good' }, 'mood: is not a field'],
    ['a field too many in its body', { body: { text: 'x', loud: true } }, 'body.loud: is not a field'],
    ['nothing set', { kind: 'brief.set', body: { set: {} } }, 'body.set: must set at least one field'],
    [
      'a field that is not known',
      { kind: 'unit.set', body: { id: idOf('u'), set: { colour: 'red' } } },
      'body.set.colour: is not a field'
    ],
    [
      'a lamp named twice',
      {
        kind: 'lamp.seen',
        body: {
          unit: idOf('u'),
          lamps: [
            { lamp: 'a', colour: 'red', pattern: 'solid' },
            { lamp: 'a', colour: 'red', pattern: 'blink' }
          ]
        }
      },
      'body.lamps[1].lamp: the lamp a is named twice'
    ],
    [
      'two colours that do not alternate',
      { kind: 'lamp.seen', body: { unit: idOf('u'), lamps: [{ lamp: 'a', colour: 'red/blue', pattern: 'blink' }] } },
      'body.lamps[0].colour: two colours go with'
    ],
    ['no lamp at all', { kind: 'lamp.seen', body: { unit: idOf('u'), lamps: [] } }, 'at least one lamp'],
    [
      'an answer that the choice does not have',
      { kind: 'choice.answered', body: { choice: 'lamp', answer: 'yes' } },
      'body.answer: is not an answer to this choice'
    ],
    [
      'a signature of no strokes',
      { kind: 'signature.given', body: { who: 'customer', name: 'A', strokes: '', digest: '0'.repeat(64) } },
      'sign in the box'
    ],
    [
      'a waiver without a reason',
      { kind: 'waiver.granted', body: { rule: 'firm-minimum', reason: ' ' } },
      'body.reason: must not be blank'
    ],
    [
      'an answer that takes a rule out of force',
      { kind: 'rule.answered', body: { rule: 'hand-cautions', answer: 'not-here' } },
      'body.answer: must be one of yes, no'
    ],
    ['a kind of the server’s', { kind: 'secret.kept', body: {} }, 'kind: ']
  ])('with %s is refused by its field', (_, change, said) => expect(refusals(change).join('\n')).toContain(said))

  it('clears a field with null', () =>
    expect(refusals({ kind: 'brief.set', body: { set: { phone: null } } })).toEqual([]))
})

it('a path is written as people write it', () => {
  expect([pathText(['walls', 2, 'thicknessMm']), pathText([]), pathText(['units', '3f-a b', 0])]).toEqual([
    'walls[2].thicknessMm',
    'input',
    'units["3f-a b"][0]'
  ])
})
