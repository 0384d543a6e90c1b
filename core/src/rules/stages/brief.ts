import { methodNeeds } from '../../catalogue/model'
import { aboutUnit, atBrief, atUnit, breaks, holds, unproven, type Home, type Rule, type Verdict, rule } from '../rule'
import { telephoneNotSaid } from './telephone'
import { briefScope } from './brief-scope'
import { methodsFor } from '../../work/units/good-look'
import { wordsOf } from '../../values/plain'
import { listed } from '../../values/list'

const fieldWords: Record<string, string> = {
  customerName: "the customer's name",
  street: 'the street',
  phone: 'a telephone number',
  secondContact: 'a second way to reach the customer',
  accessLine: 'the access line',
  speedDownMbps: 'the speed paid for',
  providerSettings: "the provider's settings"
}

/** A rule that wants certain fields of the brief filled in. */
function judgeFields(fields: string[]): Rule['judge'] {
  return ({ record }) => {
    const missing = fields.filter((field) => record.brief.facts[field as 'street'] === undefined)
    if (missing.length === 0) return [holds(`Recorded: ${listed(fields.map((field) => fieldWords[field]!))}.`)]
    return [
      unproven(
        `Not recorded: ${listed(missing.map((field) => fieldWords[field]!))}.`,
        `Enter ${fieldWords[missing[0]!]}.`,
        atBrief(missing[0]!)
      )
    ]
  }
}

export const briefContact = rule({
  id: 'brief-contact',
  name: 'Customer and contacts',
  stage: 'brief',
  level: 'must',
  minutes: 1,
  statement: 'Customer, address and a second way to reach the customer during the change-over are recorded.',
  judge: judgeFields(['customerName', 'street', 'phone', 'secondContact'])
})

export const briefService = rule({
  id: 'brief-service',
  name: 'What comes in',
  stage: 'brief',
  level: 'must',
  minutes: 1,
  statement: "Access line, speed paid for and the provider's connection settings are recorded.",
  judge: judgeFields(['accessLine', 'speedDownMbps', 'providerSettings'])
})

export const briefMethod = rule({
  id: 'brief-method',
  name: 'Setup method',
  stage: 'brief',
  level: 'should',
  minutes: 1,
  sparesUntouched: true,
  needs: ['model'],
  statement: 'Every device to install has a setup method that its model supports, and what the method needs is ready.',
  judge: ({ units }) =>
    units
      .filter(({ model }) => model !== null && model.methods.length > 0)
      .map((known) => {
        const { unit, model } = known
        const about = aboutUnit(known)
        const { method } = unit.facts
        if (method === undefined)
          return unproven(
            'No setup method is chosen.',
            'Choose how it will be set up.',
            atUnit('start', unit, 'method'),
            about
          )
        const ways = methodsFor(model!, unit)
        const found = ways.find((candidate) => candidate.id === method)
        if (!found)
          return breaks(
            `${model!.name} cannot be set up by ${model!.methods.find(({ id }) => id === method)?.name ?? method}${unit.facts.role === undefined ? '' : ` as a ${wordsOf(unit.facts.role)}`}.`,
            `Choose ${listed(ways.map((way) => way.name))}.`,
            atUnit('start', unit, 'method'),
            about
          )
        const missing = found.needs.filter((need) => !(unit.facts.needsReady ?? []).includes(need))
        if (missing.length === 0) return holds(`${found.name}; what it needs is ready.`, about)
        return unproven(
          `${found.name} still needs ${listed(missing.map((need) => methodNeeds[need]))}.`,
          'Make it ready, then tick it.',
          atUnit('start', unit, 'needsReady'),
          about
        )
      })
})

/** Whether alarms were asked about, on a line that may have some; what is not recorded of the line itself is asked first. */
function judgeLineAlarm(home: Home): Verdict[] {
  const { accessLine, telephone } = home.record.brief.facts
  if (accessLine === undefined && home.units.length > 0)
    return [unproven('What line comes in is not recorded.', 'Look, and say so under Brief.', atBrief('accessLine'))]
  if (accessLine === 'telephone-line' || telephone === true) return [judgeAlarmAnswer(home)]
  const open = telephoneNotSaid(home)
  return open ? [open] : []
}

/** What the customer said of it, and who was told. */
function judgeAlarmAnswer({ record }: Home): Verdict {
  const { lineCarries, lineTold } = record.brief.facts
  const given = record.answers['brief-line-alarm']
  if (given?.answer === 'no')
    return breaks(
      `Not asked, says ${given.by.name}.`,
      'Ask before anything is unplugged, and record what was said.',
      atBrief('lineCarries')
    )
  if (lineCarries === undefined) {
    if (given?.note !== undefined) return holds(`Asked; ${given.by.name} noted: ${given.note}`)
    return unproven(
      given ? 'It was asked about; what was answered is not recorded.' : 'Nobody has asked about it yet.',
      'Ask before anything is unplugged, and record what was said.',
      atBrief('lineCarries')
    )
  }
  if (lineCarries === 'nothing') return holds('Asked: nothing of the kind hangs on the line.')
  const what = lineCarries === 'several' ? 'several of them' : `${lineCarries === 'alarm' ? 'an' : 'a'} ${lineCarries}`
  return lineTold === undefined
    ? unproven(
        `Asked: ${what} on the line; who was told that it is down meanwhile is not recorded.`,
        'Tell whoever relies on it before anything is unplugged, and record who.',
        atBrief('lineTold')
      )
    : holds(`Asked: ${what} on the line; told: ${lineTold}.`)
}

export const briefLineAlarm = rule({
  id: 'brief-line-alarm',
  name: 'Alarm on the line',
  stage: 'brief',
  level: 'must',
  minutes: 1,
  statement:
    'On a telephone line: alarm, pendant, lift or fax on it was asked about before anything was unplugged, and what was answered is recorded; where there is one, who was told.',
  judge: judgeLineAlarm
})

/** Rules of the Brief. */
export const briefRules: readonly Rule[] = [briefContact, briefService, briefMethod, briefLineAlarm, briefScope]
