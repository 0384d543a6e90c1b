import { telephoneNotSaid } from './telephone'
import { linesSaying } from '../../history/history'
import { proofOf, whyStale } from '../../history/proof'
import { fieldKey } from '../../record/keys'
import { restsOfCall, restsOfGone, restsOfRejoined } from '../../work/prove/rests-of-answers'
import {
  type Home,
  type Place,
  type Verdict,
  breaks,
  holds,
  judgeAnswer,
  noLonger,
  rule,
  staleAnswer,
  unproven
} from '../rule'
import { ruleKey, standing, thingsOf } from '../../record/record'
import { wifiPassphrase } from './wifi-passphrase'
import { wifiName } from './wifi'

/** A name that must no longer be heard: a default of one of our units, or the home's old one where it was given up. */
export interface GoneName {
  id: string
  ssid: string
  label: string
}

/** The names to listen for, each under what its answer is kept by. */
export function namesToBeGone({ units, networks, record }: Home): GoneName[] {
  const used = new Set(networks.map(({ facts }) => facts.ssid))
  const { oldSsid, keepName } = record.brief.facts
  const defaults = units.flatMap(({ unit, model, name }): GoneName[] => {
    const { defaultSsid, stayed } = unit.facts
    if (defaultSsid !== undefined)
      return used.has(defaultSsid) ? [] : [{ id: unit.id, ssid: defaultSsid, label: `the name ${name} came with` }]
    // Nobody typed it; how it begins is known of the model.
    return model?.defaultSsidPrefix && model.radios.length > 0 && !stayed
      ? [{ id: unit.id, ssid: `${model.defaultSsidPrefix}…`, label: `a name such as ${name} comes with` }]
      : []
  })
  return [
    ...defaults,
    ...(oldSsid !== undefined && keepName !== true && !used.has(oldSsid)
      ? [{ id: 'old-name', ssid: oldSsid, label: 'the home’s old name' }]
      : [])
  ]
}

/** A call out and a call in, each answered by itself. */
export const voiceCalls = [
  { id: 'out', asks: 'A call out was made, and both sides were heard' },
  { id: 'in', asks: 'A call in rang, and both sides were heard' }
] as const

function judgeGone(home: Home): Verdict[] {
  return namesToBeGone(home).map(({ id, ssid, label }) => {
    const place = { stage: 'prove', kind: 'unit', id, field: 'gone' } satisfies Place
    const about = { id, name: ssid }
    const given = home.record.answers[ruleKey('prove-names-gone', id)]
    if (!given)
      return unproven(
        `Whether ${ssid}, ${label}, is still on the air was not looked at.`,
        'Look at the networks around, and answer here.',
        place,
        about
      )
    if (given.answer !== 'yes')
      return breaks(
        `${ssid}, ${label}, is still on the air.`,
        'Find the unit that sends it: set its name, or switch it off.',
        place,
        about
      )
    const stale = staleAnswer(home, 'prove-names-gone', id, restsOfGone(home))
    return stale
      ? noLonger(unproven(stale, 'Look at the networks around once more.', place, about))
      : holds(`${ssid} is gone.`, about)
  })
}

export const proveNamesGone = rule({
  id: 'prove-names-gone',
  name: 'Old names gone',
  stage: 'prove',
  level: 'should',
  minutes: 1,
  needs: ['model'],
  statement: 'No default or old network name of our units is on the air any more.',
  afterAnywhere: [wifiName],
  judge: judgeGone
})

export const proveRejoined = rule({
  id: 'prove-rejoined',
  name: 'Devices rejoined',
  stage: 'prove',
  level: 'should',
  minutes: 2,
  statement: "The customer's devices on the list have rejoined.",
  afterAnywhere: [wifiName, wifiPassphrase],
  restsOfBefore: (home, { subject }) =>
    thingsOf(home.record, 'device')[subject ?? '']?.facts.rejoined === undefined ? restsOfRejoined(home) : null,
  judge: ({ record, history }) =>
    standing(thingsOf(record, 'device')).map(({ id, facts }) => {
      const about = { id, name: facts.name ?? 'A device' }
      const place: Place = { stage: 'prove', kind: 'device', id, field: 'rejoined' }
      if (facts.rejoined === undefined)
        return unproven('Whether it has rejoined is not recorded.', 'Join it, then tick it.', place, about)
      const said = linesSaying(history, fieldKey('device', id, 'rejoined'), true)
      const proof = proofOf(history, said, () => restsOfRejoined({ record, history }))
      const stale = facts.rejoined && proof ? whyStale(proof) : null
      if (stale) return noLonger(unproven(stale, 'Join it once more, then tick it.', place, about))
      return facts.rejoined
        ? holds('It has rejoined.', about)
        : breaks(
            'It does not join.',
            'Look at what it can do at best under Configure, Wi-Fi; then join it.',
            place,
            about
          )
    })
})

export const proveVoice = rule({
  id: 'prove-voice',
  name: 'Telephone',
  stage: 'prove',
  level: 'must',
  minutes: 2,
  statement: 'Telephone line through the modem: a call out and a call in.',
  asks: 'Was the call made?',
  restsOfBefore: (home, { subject }) =>
    home.record.answers[ruleKey('prove-voice', subject)] === undefined ? restsOfCall(home) : null,
  judge: (home) => {
    const open = telephoneNotSaid(home)
    if (open) return [open]
    return home.record.brief.facts.telephone === true
      ? voiceCalls.map(({ id, asks }) =>
          judgeAnswer(
            home,
            'prove-voice',
            { stage: 'prove', kind: 'answer', id: 'prove-voice', field: id },
            { id, name: asks },
            restsOfCall(home)
          )
        )
      : []
  }
})
