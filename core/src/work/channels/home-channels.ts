import { bands } from '../../values/band'
import { modelOf, type Catalogue } from '../../catalogue/model'
import { obstaclesOf, placedUnits, planOf, plannedBands } from '../plan/home-plan'
import { standing, thingsOf, unitName, type Radio, type VisitRecord } from '../../record/record'
import { isMeshMember } from '../units/known-unit'
import {
  costOf,
  planChannels,
  type ChannelChoice,
  type ChannelPlan,
  type ChannelQuestion,
  type PlannedRadio
} from '../../radio/channel-plan'
import { pathLoss } from '../../radio/path-loss'

/** A radio of the home's units, with the channel that is recorded for it. */
export interface HomeRadio extends PlannedRadio {
  unit: string
  name: string
  /** The thing that its channel is recorded in; null where none is yet. */
  recorded: Radio | null
  backhaul: boolean
}

/** How two units hear each other that nobody placed in the plan: as if they stood in neighbouring rooms, dBm. */
const UNPLACED_DBM = -70

/**
 * The radios of a home's units: one a band and unit. Members of a mesh that have no radio of their own for the backhaul share
 * the channel of its band.
 */
export function homeRadios(record: VisitRecord, catalogue: Catalogue): HomeRadio[] {
  const recorded = standing(thingsOf(record, 'radio'))
  return standing(record.units).flatMap((unit): HomeRadio[] => {
    const model = modelOf(unit, catalogue)
    if (!model || unit.facts.role === 'modem') return []
    const member = isMeshMember({ model, unit }) && unit.facts.role !== 'gateway'
    const bands = [...new Set(model.radios.map(({ band }) => band))]
    return bands.map((band): HomeRadio => {
      const of = model.radios.filter((radio) => radio.band === band)
      const thing = recorded.find(({ facts }) => facts.unit === unit.id && facts.band === band) ?? null
      const backhaul = thing?.facts.backhaul ?? (member && band === '5' && of.length < 2)
      return {
        id: `${unit.id} ${band}`,
        unit: unit.id,
        name: unitName(unit),
        band,
        widthsMHz: [...new Set(of.flatMap(({ widthsMHz }) => widthsMHz))],
        recorded: thing,
        backhaul,
        ...(backhaul && model.family ? { group: `${model.family} ${band}` } : {})
      }
    })
  })
}

/** The question of a home's channels: its radios, its neighbours, and who hears whom by the plan. */
export function channelQuestion(
  record: VisitRecord,
  catalogue: Catalogue,
  radios: readonly HomeRadio[],
  more: Pick<ChannelQuestion, 'set24' | 'radar' | 'mostSteps'> = {}
): ChannelQuestion {
  const plan = planOf(record)
  const placed = new Map(placedUnits(record, plan).map((unit) => [unit.id, unit]))
  const obstacles = new Map(bands.map((band) => [band, obstaclesOf(plan, band)]))
  const cache = new Map<string, number>()
  const hears = (a: number, b: number): number => {
    const [from, to] = [radios[a]!, radios[b]!]
    const key = `${Math.min(a, b)} ${Math.max(a, b)}`
    const known = cache.get(key)
    if (known !== undefined) return known
    const [first, other] = [placed.get(from.unit), placed.get(to.unit)]
    const dbm =
      first && other
        ? 20 -
          pathLoss({
            frequencyMHz: plannedBands[from.band].middleMHz,
            from: first,
            to: other,
            ...obstacles.get(from.band)!
          }).totalDb
        : UNPLACED_DBM
    cache.set(key, dbm)
    return dbm
  }
  return { country: record.brief.facts.country, radios, neighbours: record.neighbours?.networks ?? [], hears, ...more }
}

/** What is set now, beside the best plan; null for what nobody recorded whole. */
export interface HomeChannels {
  radios: HomeRadio[]
  now: { choices: ChannelChoice[]; lost: number[]; cost: number } | null
  best: ChannelPlan
}

/** Plans the channels of a home. */
export function planHomeChannels(
  record: VisitRecord,
  catalogue: Catalogue,
  more: Pick<ChannelQuestion, 'set24' | 'radar' | 'mostSteps'> = {}
): HomeChannels {
  const radios = homeRadios(record, catalogue)
  const question = channelQuestion(record, catalogue, radios, more)
  const set = radios.map(({ recorded }): ChannelChoice | null =>
    recorded?.facts.channel !== undefined && recorded.facts.widthMHz !== undefined
      ? { channel: recorded.facts.channel, widthMHz: recorded.facts.widthMHz }
      : null
  )
  const whole = set.every((value): value is ChannelChoice => value !== null) && radios.length > 0
  let now: HomeChannels['now'] = null
  if (whole) {
    try {
      now = { choices: set, ...costOf(question, set) }
    } catch {
      now = null
    }
  }
  return { radios, now, best: planChannels(question) }
}
