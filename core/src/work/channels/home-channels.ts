import { bands, type Band } from '../../values/band'
import { modelOf, type Catalogue } from '../../catalogue/model'
import { obstaclesOf, planOf, plannedBands } from '../plan/home-plan'
import { placedStays, placedUnits, type Placed } from '../plan/placed'
import { standing, thingsOf, unitName, type Radio, type Stays, type VisitRecord } from '../../record/record'
import { stayingOf, staysThatSend } from '../../record/equipment'
import { isMeshMember } from '../units/known-unit'
import {
  costOf,
  planChannels,
  type ChannelChoice,
  type ChannelPlan,
  type ChannelQuestion,
  type Neighbour,
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

/** What radios send at about, dBm. */
const SENT_DBM = 20
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

/** How strong something that stays is heard where nobody drew it, dBm, and what of the air it takes: as one of ours would. */
const [STAYING_DBM, STAYING_BUSY] = [-60, 0.3]

/** A radio of something that stays: it sends where it sends, and ours keep out of its way. */
export interface StayingRadio {
  stays: Stays
  band: Band
  /** The thing that its channel is recorded in; null where none is yet. */
  recorded: Radio | null
  /** As it is heard, where its channel is recorded. */
  neighbour: Neighbour[]
}

/** The radios of what stays and sends, one a band: those of its model, else the two that nearly everything has. */
export function stayingRadios(record: VisitRecord, catalogue: Catalogue = new Map()): StayingRadio[] {
  const recorded = standing(thingsOf(record, 'radio'))
  return stayingOf(record)
    .filter(({ facts }) => staysThatSend.has(facts.kind))
    .flatMap((stays) => {
      const own = recorded.filter(({ facts }) => facts.unit === stays.id)
      const known = modelOf(stays, catalogue)?.radios.map(({ band }) => band) ?? (['2.4', '5'] as const)
      const sent = new Set<Band>([...known, ...own.flatMap(({ facts }) => facts.band ?? [])])
      return [...sent].map((band): StayingRadio => {
        const radio = own.find(({ facts }) => facts.band === band) ?? null
        const { channel, widthMHz = 20 } = radio?.facts ?? {}
        return {
          stays,
          band,
          recorded: radio,
          neighbour: channel === undefined ? [] : [{ band, channel, widthMHz, dbm: STAYING_DBM, busy: STAYING_BUSY }]
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
  const dbmBetween = (band: Band, from: Placed, to: Placed): number =>
    SENT_DBM - pathLoss({ frequencyMHz: plannedBands[band].middleMHz, from, to, ...obstacles.get(band)! }).totalDb
  const cache = new Map<string, number>()
  const hears = (a: number, b: number): number => {
    const [from, to] = [radios[a]!, radios[b]!]
    const key = `${Math.min(a, b)} ${Math.max(a, b)}`
    const known = cache.get(key)
    if (known !== undefined) return known
    const [first, other] = [placed.get(from.unit), placed.get(to.unit)]
    const dbm = first && other ? dbmBetween(from.band, first, other) : UNPLACED_DBM
    cache.set(key, dbm)
    return dbm
  }
  const staying = new Map(placedStays(record, plan).map((stays) => [stays.id, stays]))
  /** What stays and is drawn is heard as the one of ours hears it that stands nearest to it by the plan. */
  const heard = ({ stays, band, neighbour }: StayingRadio): Neighbour[] => {
    const from = staying.get(stays.id)
    const ours = radios.flatMap((radio) => (radio.band === band ? (placed.get(radio.unit) ?? []) : []))
    if (!from || ours.length === 0 || ours.length < radios.filter((radio) => radio.band === band).length)
      return neighbour
    const dbm = Math.max(...ours.map((to) => dbmBetween(band, from, to)))
    return neighbour.map((network) => ({ ...network, dbm }))
  }
  const neighbours = [...(record.neighbours?.networks ?? []), ...stayingRadios(record).flatMap(heard)]
  return { country: record.brief.facts.country, radios, neighbours, hears, ...more }
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
