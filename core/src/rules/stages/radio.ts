import { channelProblem, partsOf, permittedBy, radarMinutes, unknownCountry } from '../../radio/permitted'
import {
  channelQuestion,
  homeRadios,
  planHomeChannels,
  type HomeChannels,
  type HomeRadio
} from '../../work/channels/home-channels'
import { countryName } from '../../radio/permissions'
import { Kept } from '../../record/kept'
import { modelOf } from '../../catalogue/model'
import { ofWhatStood, untouched } from '../stood-before'
import { spectrumOf } from '../../radio/channels'
import { breaks, holds, unproven, type Home, type Place, type Rule, type Verdict, rule } from '../rule'

const at = (radio: HomeRadio): Place => ({ stage: 'configure', kind: 'radio', id: radio.id, field: 'channel' })
const ofCountry: Place = { stage: 'brief', kind: 'brief', id: 'brief', field: 'country' }
const about = (radio: HomeRadio) => ({ id: radio.unit, name: `${radio.name}, ${radio.band} GHz` })
const sets = { '1-6-11': [1, 6, 11], '1-5-9-13': [1, 5, 9, 13] } as const
const setOf = ({ policy }: Home) => sets[policy.channelSet ?? '1-6-11']
const chosen = ({ recorded }: HomeRadio) =>
  recorded?.facts.channel !== undefined && recorded.facts.widthMHz !== undefined
    ? { channel: recorded.facts.channel, widthMHz: recorded.facts.widthMHz }
    : null
/** Weaker than this two radios of ours do not disturb each other, dBm. */
const HEAR_DBM = -82
/** A plan may cost this much more than the best. */
const NEAR_BEST = 1.1

/** Only where somebody has begun to record channels: a model may choose its own. */
const begun = (radios: readonly HomeRadio[]) => radios.some((radio) => radio.recorded !== null)

const plans = new Kept<object, HomeChannels>()
const RULE_STEPS = 400

function plannedOf({ record, catalogue, policy }: Home): HomeChannels {
  const { radios, neighbours, stays, units, rooms, storeys, walls, brief } = record
  const of = [neighbours, stays, units, rooms, storeys, walls, brief, catalogue, policy]
  return plans.get(radios!, of, () =>
    planHomeChannels(record, catalogue, { set24: sets[policy.channelSet ?? '1-6-11'], mostSteps: RULE_STEPS })
  )
}

/** A radio of which no channel is recorded: it chooses by itself, as far as it may be used in the country, or nobody knows. */
function unrecorded(home: Home, radio: HomeRadio): Verdict {
  const { record, catalogue } = home
  const unit = record.units[radio.unit]!
  const { country } = record.brief.facts
  const isSet = radio.recorded?.facts.channel !== undefined
  if (!isSet && !unit.facts.autoChannels && untouched(home).has(unit.id)) return ofWhatStood(about(radio))
  if (isSet || !unit.facts.autoChannels)
    return unproven(
      'Its channel and width are not recorded.',
      'Read them off its page, or plan them; or say that it chooses them by itself.',
      at(radio),
      about(radio)
    )
  const limited = modelOf(unit, catalogue)!
    .radios.filter(({ band, countries }) => band === radio.band && countries.length > 0)
    .map(({ countries }) => countries)
  // Made for the country it sends what is permitted there; of one that is made for none in particular nobody knows where nobody knows what is permitted.
  const unknown = limited.length === 0 || country === undefined ? unknownCountry(country) : null
  if (unknown) return unproven(unknown.what, unknown.mend, ofCountry, about(radio))
  return limited.every((countries) => countries.includes(country!))
    ? holds('It chooses its channel by itself.', about(radio))
    : breaks(
        `It chooses its channel by itself, and is not made for ${countryName(country!)}.`,
        'Choose a permitted channel, or a model that is made for here.',
        at(radio),
        about(radio)
      )
}

export const radioChannel = rule({
  id: 'radio-channel',
  name: 'Channel',
  stage: 'configure',
  level: 'must',
  minutes: 3,
  needs: ['model'],
  statement: 'Channels are permitted in the country; 2.4 GHz ones are of a non-overlapping set and 20 MHz wide.',
  judge: (home) => {
    const set = setOf(home)
    return homeRadios(home.record, home.catalogue).map((radio): Verdict => {
      const choice = chosen(radio)
      if (!choice) return unrecorded(home, radio)
      const problem = channelProblem(home.record.brief.facts.country, radio.band, choice.channel, choice.widthMHz)
      if (problem)
        return breaks(
          `${problem[0]!.toUpperCase()}${problem.slice(1)}.`,
          'Choose a permitted channel.',
          at(radio),
          about(radio)
        )
      if (radio.band === '2.4' && choice.widthMHz !== 20)
        return breaks(
          `${choice.widthMHz} MHz wide: at 2.4 GHz that takes most of the band from everybody.`,
          'Set it to 20 MHz.',
          at(radio),
          about(radio)
        )
      if (radio.band === '2.4' && !(set as readonly number[]).includes(choice.channel))
        return breaks(
          `Channel ${choice.channel} is none of ${set.join(', ')}: it overlaps what is sent on ${(set as readonly number[]).filter((value) => Math.abs(value - choice.channel) < 5).join(' and ')}.`,
          `Take ${set.join(', ').replace(/, (\d+)$/, ' or $1')}.`,
          at(radio),
          about(radio)
        )
      const { country } = home.record.brief.facts
      const unknown = unknownCountry(country)
      if (unknown) return unproven(unknown.what, unknown.mend, ofCountry, about(radio))
      return holds(
        `Channel ${choice.channel}, ${choice.widthMHz} MHz: permitted (${permittedBy(country)!}).`,
        about(radio)
      )
    })
  }
})

export const radioPlan = rule({
  id: 'radio-plan',
  name: 'Channels beside each other',
  stage: 'configure',
  level: 'should',
  minutes: 4,
  statement:
    'No two of our own radios that hear each other share spectrum, mesh backhaul apart; the plan’s cost is within 10 % of the best.',
  judge: (home) => {
    const radios = homeRadios(home.record, home.catalogue)
    if (!begun(radios) || radios.some((radio) => chosen(radio) === null)) return []
    const { hears } = channelQuestion(home.record, home.catalogue, radios)
    for (const [a, own] of radios.entries()) {
      for (const [b, other] of radios.entries()) {
        if (
          b <= a ||
          own.band !== other.band ||
          (own.group !== undefined && own.group === other.group) ||
          hears(a, b) < HEAR_DBM
        )
          continue
        const [mine, theirs] = [own, other].map((radio) =>
          spectrumOf(radio.band, chosen(radio)!.channel, chosen(radio)!.widthMHz)
        )
        if (mine && theirs && Math.min(mine.toMHz, theirs.toMHz) > Math.max(mine.fromMHz, theirs.fromMHz))
          return [
            breaks(
              `${own.name} and ${other.name} share spectrum at ${own.band} GHz, and hear each other.`,
              'Put them on channels that do not overlap, or acknowledge with the reason.',
              at(other),
              about(other)
            )
          ]
      }
    }
    if (
      unknownCountry(home.record.brief.facts.country) ||
      radios.some((radio) =>
        channelProblem(home.record.brief.facts.country, radio.band, chosen(radio)!.channel, chosen(radio)!.widthMHz)
      )
    )
      return []
    const { now, best } = plannedOf(home)
    if (!now) return []
    // A tenth of a radio's rate more or less is not worth a change where nearly nothing is lost.
    if (now.cost <= Math.max(best.cost * NEAR_BEST, best.cost + 0.1))
      return [holds(`What is lost to others’ air is within a tenth of the least.`)]
    const share = (lost: readonly number[]) =>
      Math.round((lost.reduce((sum, value) => sum + value, 0) / radios.length) * 100)
    return [
      breaks(
        `${share(now.lost)} % of the rate is lost to narrow channels and others’ air; the best plan loses ${share(best.lost)} %.`,
        'Take the plan, or acknowledge with the reason.',
        { stage: 'configure', kind: 'radio', id: 'plan', field: 'channel' }
      )
    ]
  }
})

export const radioRadar = rule({
  id: 'radio-radar',
  name: 'Radar channels',
  stage: 'configure',
  level: 'note',
  minutes: 1,
  statement: 'Radar channels in use are named, with what happens on a radar event.',
  judge: (home) =>
    homeRadios(home.record, home.catalogue).flatMap((radio): Verdict[] => {
      const choice = chosen(radio)
      if (!choice) return []
      const minutes = radarMinutes(home.record.brief.facts.country, radio.band, choice.channel, choice.widthMHz)
      if (minutes === 0) return []
      const parts = partsOf(radio.band, choice.channel, choice.widthMHz)
      return [
        holds(
          `Channel ${choice.channel} (${parts[0]} to ${parts.at(-1)}) is shared with radar: the unit listens ${minutes === 1 ? 'a minute' : 'ten minutes'} before it sends, and changes channel at once when it hears one.`,
          about(radio)
        )
      ]
    })
})

/** Rules of Configure about channels. */
export const radioRules: readonly Rule[] = [radioChannel, radioPlan, radioRadar]
