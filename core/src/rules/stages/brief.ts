import { methodNeeds } from '../../catalogue/model'
import { aboutUnit, askedRule, atBrief, atUnit, breaks, holds, unproven, type Rule, rule } from '../rule'
import { telephoneNotSaid } from './telephone'
import { briefScope } from './brief-scope'
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
        const found = model!.methods.find((candidate) => candidate.id === method)
        if (!found)
          return breaks(
            `${model!.name} cannot be set up by ${method}.`,
            `Choose ${listed(model!.methods.map((way) => way.name))}.`,
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

export const briefLineAlarm = askedRule({
  id: 'brief-line-alarm',
  name: 'Alarm on the line',
  stage: 'brief',
  level: 'must',
  minutes: 1,
  statement: 'On a telephone line: alarm, pendant, lift or fax on it was asked about before anything was unplugged.',
  asks: 'Did you ask about an alarm, a pendant, a lift or a fax on this line, before anything was unplugged?',
  applies: ({ record }) => record.brief.facts.accessLine === 'telephone-line' || record.brief.facts.telephone === true,
  unknown: (home) => {
    const { accessLine } = home.record.brief.facts
    if (accessLine === 'telephone-line') return null
    return accessLine === undefined && home.units.length > 0
      ? unproven('What line comes in is not recorded.', 'Look, and say so under Brief.', atBrief('accessLine'))
      : telephoneNotSaid(home)
  }
})

/** Rules of the Brief. */
export const briefRules: readonly Rule[] = [briefContact, briefService, briefMethod, briefLineAlarm, briefScope]
