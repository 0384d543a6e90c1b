import { spectrumOf, type Spectrum, type WidthMHz } from './channels'
import type { Band } from '../values/band'
import { permissionOf } from './permissions'
import { partsOf, radarMinutes } from './permitted'

/** A radio of ours that wants a channel. */
export interface PlannedRadio {
  id: string
  band: Band
  widthsMHz: readonly WidthMHz[]
  /** Radios of one group share a channel: a mesh backhaul on one radio. */
  group?: string
}

/** A network of somebody else, as it is heard here. */
export interface Neighbour {
  band: Band
  channel: number
  widthMHz: WidthMHz
  dbm: number
  /** Share of the air that it takes, 0 to 1. */
  busy: number
}

export interface ChannelChoice {
  channel: number
  widthMHz: WidthMHz
}

/** What a plan is asked. */
export interface ChannelQuestion {
  /** Where the home is; no channel may be taken where it is not known what is permitted there. */
  country: string | undefined
  radios: readonly PlannedRadio[]
  neighbours: readonly Neighbour[]
  /** The signal between two of our radios, by their places in the list, dBm. */
  hears: (a: number, b: number) => number
  /** Channels of 2.4 GHz that do not overlap. */
  set24?: readonly number[]
  /** Radar channels are taken only where this allows them. */
  radar?: boolean
  /** After so many steps the best found has to do. */
  mostSteps?: number
}

/** A plan of channels and what it comes to. */
export interface ChannelPlan {
  choices: ChannelChoice[]
  /** Of each radio's best rate, the share that is lost: to others' air, to our own, to a narrower channel. */
  lost: number[]
  cost: number
  /** No plan costs less than this; the same as `cost` where it is proven. */
  bound: number
  proven: boolean
}

/** Weaker than this nobody waits for another, and stronger than that everybody does, dBm. */
const [FAINT_DBM, HEARD_DBM] = [-95, -82]
/** Two of our own that hear each other on shared spectrum cost this beside what they lose: it is done only where there is no other way. */
const SHARED_COST = 1
/** Share of the air that one of our own radios takes. */
const OWN_BUSY = 0.3
/** Data tones by width (IEEE 802.11ax): what a wider channel is faster by. */
const TONES = { 20: 234, 40: 468, 80: 980, 160: 1960 } as const
/** So many steps are gone before the best found has to do: about a second. */
const MOST_STEPS = 4000
/** A radar channel is worth a little less: it brings a wait of a minute, or of ten, and may be lost. */
const RADAR_COST = { 0: 0, 1: 0.03, 10: 0.06 } as const

/** How much of what another sends counts here: all of it when heard, less as it fades. */
export const weightOf = (dbm: number): number => Math.min(1, Math.max(0, (dbm - FAINT_DBM) / (HEARD_DBM - FAINT_DBM)))
const shared = (a: Spectrum, b: Spectrum) =>
  Math.max(0, Math.min(a.toMHz, b.toMHz) - Math.max(a.fromMHz, b.fromMHz)) / (a.toMHz - a.fromMHz)

interface Option extends ChannelChoice {
  spectrum: Spectrum
  free: number[]
}

/** Every channel that a radio may take: one for each block, 2.4 GHz ones of the set that does not overlap, 20 MHz wide. */
export function choicesFor(
  { country, set24 = [1, 6, 11], radar = true }: Pick<ChannelQuestion, 'country' | 'set24' | 'radar'>,
  { band, widthsMHz }: Pick<PlannedRadio, 'band' | 'widthsMHz'>
): ChannelChoice[] {
  const all = permissionOf(country)?.channels[band] ?? []
  const permitted = new Set(all)
  const widths = band === '2.4' ? ([20] as const) : [...widthsMHz].sort((a, b) => b - a)
  const firsts = band === '2.4' ? set24.filter((value) => permitted.has(value)) : all
  return widths.flatMap((widthMHz) =>
    firsts.flatMap((channel): ChannelChoice[] => {
      const parts = partsOf(band, channel, widthMHz)
      if (parts[0] !== channel && band !== '2.4') return []
      if (parts.length === 0 || parts.some((part) => !permitted.has(part))) return []
      return !radar && radarMinutes(country, band, channel, widthMHz) > 0 ? [] : [{ channel, widthMHz }]
    })
  )
}

/** What each radio loses on a choice of channels, the expected share of its best rate; and the cost in all, with what sharing among our own costs beside. */
export function costOf(question: ChannelQuestion, choices: readonly ChannelChoice[]): { lost: number[]; cost: number } {
  const { radios, neighbours, hears, country } = question
  const spectra = choices.map(({ channel, widthMHz }, at) => spectrumOf(radios[at]!.band, channel, widthMHz)!)
  let sharing = 0
  const lost = radios.map((radio, at) => {
    let kept = keptOf(radio, choices[at]!, spectra[at]!, neighbours, country)
    radios.forEach((other, from) => {
      if (from !== at && other.band === radio.band && !(radio.group !== undefined && radio.group === other.group)) {
        kept *= 1 - shared(spectra[at]!, spectra[from]!) * OWN_BUSY * weightOf(hears(from, at))
        if (shared(spectra[at]!, spectra[from]!) > 0 && hears(from, at) >= HEARD_DBM) sharing += SHARED_COST
      }
    })
    return 1 - kept
  })
  return { lost, cost: lost.reduce((sum, value) => sum + value, 0) + sharing }
}

/** What is kept of a radio's best rate without regard to our own other radios. */
function keptOf(
  radio: PlannedRadio,
  { channel, widthMHz }: ChannelChoice,
  spectrum: Spectrum,
  neighbours: readonly Neighbour[],
  country: string | undefined
): number {
  const widest = radio.band === '2.4' ? 20 : Math.max(...radio.widthsMHz)
  let kept = TONES[widthMHz] / TONES[widest as WidthMHz]
  for (const neighbour of neighbours) {
    if (neighbour.band !== radio.band) continue
    const theirs = spectrumOf(neighbour.band, neighbour.channel, neighbour.widthMHz)
    // A wide channel waits for anybody in any part of it; what lies beside it is not waited for but disturbs as far as it reaches in.
    if (theirs)
      kept *=
        1 -
        (shared(spectrum, theirs) > 0 ? Math.max(shared(spectrum, theirs), 0.5) : 0) *
          neighbour.busy *
          weightOf(neighbour.dbm)
  }
  return kept * (1 - RADAR_COST[radarMinutes(country, radio.band, channel, widthMHz)])
}

/**
 * Plans channel and width of every radio with the least loss in all, exactly (branch and bound, one variable a group). Where that takes
 * too many steps the best found is given with a bound on what any plan could save.
 * @throws RangeError where a radio may take no channel at all
 */
export function planChannels(question: ChannelQuestion): ChannelPlan {
  // Bands do not touch each other: each is planned by itself.
  const choices: ChannelChoice[] = []
  let bound = 0
  let proven = true
  for (const band of new Set(question.radios.map((radio) => radio.band))) {
    const at = question.radios.flatMap((radio, index) => (radio.band === band ? [index] : []))
    const plan = planBand({
      ...question,
      radios: at.map((index) => question.radios[index]!),
      hears: (a, b) => question.hears(at[a]!, at[b]!)
    })
    plan.choices.forEach((choice, index) => {
      choices[at[index]!] = choice
    })
    bound += plan.bound
    proven &&= plan.proven
  }
  const { lost, cost } = costOf(question, choices)
  return { choices, lost, cost, bound: proven ? cost : Math.min(bound, cost), proven }
}

/** Plans the radios of one band. */
function planBand(question: ChannelQuestion): ChannelPlan {
  const { radios, neighbours, hears, country, mostSteps = MOST_STEPS } = question
  if (radios.length === 0) return { choices: [], lost: [], cost: 0, bound: 0, proven: true }
  const groups: number[][] = []
  radios.forEach((radio, at) => {
    const known =
      radio.group === undefined
        ? undefined
        : groups.find(([first]) => radios[first!]!.group === radio.group && radios[first!]!.band === radio.band)
    if (known) known.push(at)
    else groups.push([at])
  })
  const options = groups.map((members): Option[] => {
    const [first] = members
    const widths = radios[first!]!.widthsMHz.filter((width) =>
      members.every((at) => radios[at]!.widthsMHz.includes(width))
    )
    return choicesFor(question, { band: radios[first!]!.band, widthsMHz: widths }).map((choice) => {
      const spectrum = spectrumOf(radios[first!]!.band, choice.channel, choice.widthMHz)!
      return {
        ...choice,
        spectrum,
        free: members.map((at) => keptOf(radios[at]!, choice, spectrum, neighbours, country))
      }
    })
  })
  const empty = options.findIndex((list) => list.length === 0)
  if (empty >= 0)
    throw new RangeError(`no channel is permitted for ${radios[groups[empty]![0]!]!.id} at a width that it can do`)
  // Those that hear most others come first: what they take decides most.
  const order = groups.map((_, at) => at).sort((a, b) => ties(b) - ties(a) || options[a]!.length - options[b]!.length)
  function ties(at: number): number {
    return groups.reduce((sum, other, index) => sum + (index !== at && couples(groups[at]!, other) ? 1 : 0), 0)
  }
  function couples(a: readonly number[], b: readonly number[]): boolean {
    return a.some((x) =>
      b.some((y) => radios[x]!.band === radios[y]!.band && (weightOf(hears(x, y)) > 0 || weightOf(hears(y, x)) > 0))
    )
  }

  // What members of one group keep beside another group, for every pair of options: reckoned once.
  const beside = groups.map((members, index) =>
    groups.map((others, from): { factors: Float64Array; costs: Float64Array } | null => {
      if (index === from || !couples(members, others)) return null
      const [mine, theirs] = [options[index]!, options[from]!]
      const factors = new Float64Array(mine.length * theirs.length * members.length)
      const costs = new Float64Array(mine.length * theirs.length)
      mine.forEach((option, o) =>
        theirs.forEach((two, t) =>
          members.forEach((at, place) => {
            let kept = 1
            for (const other of others) {
              kept *= 1 - shared(option.spectrum, two.spectrum) * OWN_BUSY * weightOf(hears(other, at))
              if (shared(option.spectrum, two.spectrum) > 0 && hears(other, at) >= HEARD_DBM)
                costs[o * theirs.length + t]! += SHARED_COST
            }
            factors[(o * theirs.length + t) * members.length + place] = kept
          })
        )
      )
      return { factors, costs }
    })
  )
  /** What each member of each group keeps on each option, beside all that are placed so far. */
  interface State {
    kept: Float64Array
    cost: Float64Array
  }
  type Kept = State[]
  const first: Kept = options.map((list, index) => ({
    kept: Float64Array.from(list.flatMap(({ free }) => free.slice(0, groups[index]!.length))),
    cost: new Float64Array(list.length)
  }))
  const place = (kept: Kept, index: number, option: number): Kept =>
    kept.map((state, other) => {
      const pair = beside[other]![index]
      if (!pair) return state
      const many = groups[other]!.length
      const width = options[index]!.length
      const next = new Float64Array(state.kept.length)
      const cost = new Float64Array(state.cost.length)
      for (let o = 0; o < options[other]!.length; o++) {
        cost[o] = state.cost[o]! + pair.costs[o * width + option]!
        for (let m = 0; m < many; m++)
          next[o * many + m] = state.kept[o * many + m]! * pair.factors[(o * width + option) * many + m]!
      }
      return { kept: next, cost }
    })
  const lossOf = (kept: Kept, index: number, option: number): number => {
    const many = groups[index]!.length
    let loss = kept[index]!.cost[option]!
    for (let m = 0; m < many; m++) loss += 1 - kept[index]!.kept[option * many + m]!
    return loss
  }
  const taken = groups.map(() => -1)
  /** No plan that goes on from here costs less: what is placed as it stands, and of each open group its best option. */
  const boundOf = (kept: Kept): number => {
    let bound = 0
    for (let index = 0; index < groups.length; index++) {
      if (taken[index]! >= 0) {
        bound += lossOf(kept, index, taken[index]!)
        continue
      }
      let least = Infinity
      for (let option = 0; option < options[index]!.length; option++)
        least = Math.min(least, lossOf(kept, index, option))
      bound += least
    }
    return bound
  }

  let best: number[] = []
  let bestCost = Infinity
  let steps = 0
  let rootBound = boundOf(first)
  const search = (depth: number, kept: Kept): void => {
    if (depth === order.length) {
      const cost = boundOf(kept)
      if (cost < bestCost - 1e-12) {
        bestCost = cost
        best = [...taken]
      }
      return
    }
    const index = order[depth]!
    const tried = options[index]!.map((_, option) => {
      taken[index] = option
      const next = place(kept, index, option)
      return { option, next, bound: boundOf(next) }
    }).sort((x, y) => x.bound - y.bound)
    for (const { option, next, bound } of tried) {
      if (bound >= bestCost - 1e-12) break
      // The first way down is always gone to its end: there is a plan, whatever the limit.
      if (++steps > mostSteps && bestCost < Infinity) break
      taken[index] = option
      search(depth + 1, next)
    }
    taken[index] = -1
  }
  search(0, first)
  const proven = steps <= mostSteps
  const choices: ChannelChoice[] = radios.map(() => ({ channel: 0, widthMHz: 20 }))
  groups.forEach((members, index) => {
    for (const at of members)
      choices[at] = {
        channel: options[index]![best[index]!]!.channel,
        widthMHz: options[index]![best[index]!]!.widthMHz
      }
  })
  const { lost, cost } = costOf(question, choices)
  rootBound = Math.min(rootBound, cost)
  return { choices, lost, cost, bound: proven ? cost : rootBound, proven }
}
