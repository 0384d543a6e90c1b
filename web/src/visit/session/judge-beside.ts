import type { Work } from '@pasado/core/agenda/work'
import type { Catalogue } from '@pasado/core/catalogue/model'
import type { Entry, Placed } from '@pasado/core/record/entry'
import type { DocketRules } from '@pasado/core/rules/docket-rules'
import type { Finding } from '@pasado/core/rules/finding'
import type { Standard } from '@pasado/core/policy/standard'
import type { Durations } from '@pasado/core/work/run/duration-keys'
import { scriptPart } from '../../app/script-part'
import { askRules } from '../../workers/judge'
import type { JudgeAnswer, JudgeAsk } from '../../workers/judge-visit'

/** A visit as the rules are asked about it. */
export interface ToJudge {
  entries: readonly Entry[]
  pending: readonly Placed[]
  catalogue: Catalogue
  standard: Standard
  durations: Durations
}

/** What the rules say, the work that is left by it, and what the docket goes by. */
export interface Said {
  findings: Finding[]
  works: readonly Work[]
  rules: DocketRules
}

type Asks = (asked: JudgeAsk) => Promise<JudgeAnswer>

/** What has been asked, and is not asked again: how far the rules know the logbook, by what they judge, and what they said last. */
interface Told {
  lines: number
  last: string | undefined
  catalogue: Catalogue
  standard: Standard
  durations: Durations
  said: Said
}

/** Somebody who waits for what the rules say of a visit. */
interface Waiting {
  of: ToJudge
  done: (said: Said | null) => void
  failed: (error: unknown) => void
}

let asks: Asks | null = null
let told: Told | null = null
let next: Waiting | null = null
let isAsking = false

/**
 * Asks the rules beside the page. While they are asked the newest question waits, and takes the place of the one that waited before it.
 * @returns what they say, the findings of before where they say the same; null where a newer question took its place
 * @throws where the rules did not come
 */
export function judgeBeside(of: ToJudge): Promise<Said | null> {
  next?.done(null)
  return new Promise((done, failed) => {
    next = { of, done, failed }
    if (!isAsking) void askInTurn()
  })
}

async function askInTurn(): Promise<void> {
  isAsking = true
  while (next) {
    const { of, done, failed } = next
    next = null
    await answered(of).then(done, failed)
  }
  isAsking = false
}

async function answered(of: ToJudge): Promise<Said> {
  const time = new Date().toISOString()
  let answer: JudgeAnswer
  try {
    asks ??= typeof Worker === 'undefined' ? await onThisPage() : askRules
    answer = await inTime(asks(questionOf(of, time)))
  } catch {
    // A worker that broke off knows nothing any more: the rules are loaded here, and told all of it.
    told = null
    asks = null
    asks = await onThisPage()
    answer = await asks(questionOf(of, time))
  }
  const was = told?.said.findings ?? []
  const now = answer.findings.map((finding) => (typeof finding === 'number' ? was[finding]! : finding))
  const isAsItWas = now.length === was.length && now.every((finding, at) => finding === was[at])
  const findings = isAsItWas ? was : now
  const works = answer.works.map((work): Work => ({ ...work, findings: work.findings.map((at) => findings[at]!) }))
  const said = { findings, works, rules: answer.rules ?? told!.said.rules }
  const { catalogue, standard, entries, durations } = of
  told = { lines: entries.length, last: entries.at(-1)?.id, catalogue, standard, durations, said }
  return said
}

function questionOf({ entries, pending, catalogue, standard, durations }: ToJudge, now: string): JudgeAsk {
  // A line has one place in one logbook: whoever knows it knows what stands before it.
  const isKnown =
    told?.catalogue === catalogue && told.standard === standard && entries[told.lines - 1]?.id === told.last
  const past = told?.durations === durations ? {} : { durations: [...durations] }
  if (!told || !isKnown)
    return { begin: { models: [...catalogue.values()], standard }, fresh: entries, pending, now, ...past }
  return { fresh: entries.slice(told.lines), pending, now, ...past }
}

/** A worker that has said nothing for so long is given up, ms: a browser that is short of memory ends one without a word. */
const PATIENCE_MS = 30_000

function inTime<T>(answer: Promise<T>): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error('the rules did not answer')), PATIENCE_MS)
  })
  return Promise.race([answer, late]).finally(() => clearTimeout(timer))
}

const onThisPage = async (): Promise<Asks> => {
  const { visitJudge } = await scriptPart(() => import('../../workers/judge-visit'))
  const judge = visitJudge()
  return (asked) => Promise.resolve(judge(asked))
}
