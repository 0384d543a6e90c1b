import { withFirmware, type KnownUnit } from '../work/units/known-unit'
import { aboutUnit, atUnit, unproven, type Home, type Need, type Rule, type Verdict } from './rule'

const lacks: Readonly<Record<Need, (known: KnownUnit) => boolean>> = {
  model: ({ model }) => model === null,
  role: ({ unit }) => unit.facts.role === undefined,
  method: ({ unit, model }) =>
    !unit.facts.stayed &&
    unit.facts.method === undefined &&
    Boolean(model?.methods.some(({ kind }) => kind === 'push-button')),
  firmwareAfter: (known) => withFirmware(known) && known.unit.facts.firmwareAfter === undefined
}

const words: Readonly<Record<Need, string>> = {
  model: 'Its model is not known',
  role: 'Its role is not recorded',
  method: 'How it was set up is not recorded',
  firmwareAfter: 'The version it runs is not recorded'
}

/**
 * What a rule says with what it needs to know of every unit: of one that lacks it, and of which it said nothing, it is unproven. Leaving
 * something out never clears a rule.
 */
export function withNeeds(rule: Rule, { units }: Home, verdicts: Verdict[]): Verdict[] {
  const { needs = [] } = rule
  const open = units.flatMap((known) => {
    const lacking = needs.find((need) => lacks[need](known))
    // What it says of one of which it does not know what it needs, it does not know.
    const isJudged = verdicts.some(({ subject, outcome }) => subject?.id === known.unit.id && outcome !== 'holds')
    return lacking === undefined || isJudged
      ? []
      : [
          unproven(
            `${words[lacking]}: whether this holds of it is not known.`,
            'Record it under Kit.',
            atUnit('kit', known.unit, lacking),
            aboutUnit(known)
          )
        ]
  })
  if (open.length === 0) return verdicts
  const lacking = new Set(open.map(({ subject }) => subject?.id))
  return [...verdicts.filter(({ subject }) => subject === null || !lacking.has(subject.id)), ...open]
}
