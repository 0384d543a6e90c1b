import { hasSeen, isSame, wasNeverSo, wasPutBack, type History, type Write } from './history'
import { cameBy, isBefore, whyWordFails } from './words'
import { fieldKey, isPresence, partsOf, presenceKey } from '../record/keys'
import type { UnitEvent } from '../record/answers'
import type { StoredKind } from '../record/things/all'

/** What a proof rests on. */
export type Rests =
  /** That nothing of this happened to a unit. */
  | { unit: string; without: readonly UnitEvent[]; name: string }
  /** That something was recorded when it was found, by the line that brought it into the visit; or that somebody says it stood there then. */
  | { stood: string; thing: 'unit' | 'stays'; line: number; name: string }
  /** That a key holds the value it had before the proof's author; `first`: whether the first value it is given counts as another. */
  | {
      key: string
      first: boolean
      name: string
      /** Whether another value counts although it was taken back as never so: it may have been typed in. */
      slips?: true
    }

/** What happened after a proof, or unknown to its author, of what the proof rests on. */
export interface Change {
  seq: number
  /** True where whoever changed it had seen the proof: it was after it. Else neither knew of the other. */
  after: boolean
  /** In one sentence. */
  message: string
}

const eventWords: Readonly<Record<UnitEvent, string>> = {
  powered: 'was switched on',
  restarted: 'was restarted',
  moved: 'was moved',
  updated: 'was updated',
  reset: 'was reset',
  'settings-changed': 'had its settings changed',
  'tested-good': 'was tested',
  'tested-bad': 'was tested'
}

/**
 * What changed of what a proof rests on: every change that is not in its past, oldest first. A value that is the one the proof's author
 * had is no change; nor is one that was settled for it.
 * @param proof the number of the line that says it
 */
export function changesSince(history: History, proof: number, rests: readonly Rests[]): Change[] {
  const changes = rests.flatMap((on) => {
    if ('unit' in on) return happened(history, proof, on)
    return 'stood' in on ? recorded(history, proof, on) : changed(history, proof, on)
  })
  return changes.sort((a, b) => a.seq - b.seq)
}

/** The first thing that changed of what a proof rests on, told in a sentence; null where it stands. */
export function whyNotStanding(history: History, proof: number, rests: readonly Rests[]): string | null {
  return changesSince(history, proof, rests)[0]?.message ?? null
}

function happened(history: History, proof: number, { unit, without, name }: Extract<Rests, { unit: string }>) {
  const happenings = history.happenings.get(unit) ?? []
  return happenings
    .filter(({ seq, what }) => without.includes(what as UnitEvent) && !isBefore(history, proof, seq))
    .filter(({ seq }) => !wasNeverSo(history, seq))
    .map(({ seq, what }) => told(history, proof, seq, `${name} ${eventWords[what as UnitEvent]}`))
}

/** What was recorded after it was found, and of which nobody says that it stood there then. */
function recorded(
  history: History,
  proof: number,
  { stood: id, thing, line, name }: Extract<Rests, { stood: string }>
): Change[] {
  if (isBefore(history, proof, line)) return []
  if (history.stood.get(id)?.some((seq) => hasSeen(history, seq, proof))) return []
  if (history.undone.size > 0 && wasNeverHere(history, presenceKey(thing, id))) return []
  const message = `${name} was recorded since: whether it stood there then is not known.`
  history.recordedSince?.push({ thing, id, message })
  return [{ seq: line, after: false, message }]
}

function changed(
  history: History,
  proof: number,
  { key, first, name, slips }: Extract<Rests, { key: string }>
): Change[] {
  const all = history.writes.get(key)
  if (!all) return []
  if (history.undone.size > 0 && isPresence(partsOf(key)) && wasNeverHere(history, key)) return []
  const writes =
    slips || history.undone.size === 0
      ? all
      : all.filter(
          ({ seq }) => isBefore(history, proof, seq) || !wasNeverSo(history, seq) || !wasPutBack(history, key, seq)
        )
  const had = history.writes.get(key)?.findLast(({ seq }) => isBefore(history, proof, seq))
  const value = had ? had.value : firstValueOf(key)
  if (value === undefined && !first) return laterThanFirst(history, proof, writes, name)
  return writes
    .filter((write) => !isBefore(history, proof, write.seq) && !isSame(write.value, value))
    .filter((write) => !had || !wasSettledFor(history, write.seq, had, writes))
    .map(({ seq, value: now }) => told(history, proof, seq, changeWords(name, value, now)))
}

/** Whether all that was ever written of a thing was taken back as never so: it was never in the visit, and could not be taken out. */
function wasNeverHere(history: History, presence: string): boolean {
  const { kind, id } = partsOf(presence)
  const lines = [...history.writes]
    .filter(([key]) => key !== presence && key.startsWith(`${kind}.${id}.`))
    .flatMap(([, writes]) => writes)
  return lines.length > 0 && lines.every(({ seq }) => wasNeverSo(history, seq))
}

/** What is so before anybody says it: a thing that was never taken out is here. */
function firstValueOf(key: string): unknown {
  return isPresence(partsOf(key)) ? true : undefined
}

/** Where the first value is no change, every other one after it is. */
function laterThanFirst(history: History, proof: number, writes: readonly Write[], name: string): Change[] {
  const unseen = writes.filter(({ seq }) => !isBefore(history, proof, seq))
  const [written] = unseen
  return unseen
    .filter(({ value }) => !isSame(value, written!.value))
    .map(({ seq, value }) => told(history, proof, seq, changeWords(name, written!.value, value)))
}

/** Whether a value, written by somebody who did not know of the one that was had, was settled for that one by somebody who knew both. */
function wasSettledFor(history: History, write: number, had: Write, writes: readonly Write[]): boolean {
  if (hasSeen(history, write, had.seq) || hasSeen(history, had.seq, write)) return false
  return writes.some(
    ({ seq, value }) =>
      isSame(value, had.value) && seq !== write && hasSeen(history, seq, write) && hasSeen(history, seq, had.seq)
  )
}

function changeWords(name: string, before: unknown, now: unknown): string {
  if (typeof before === 'boolean' && typeof now === 'boolean')
    return `${name} ${now ? 'was put back' : 'was taken out'}`
  return `${name} ${before === undefined ? 'was set' : 'was changed'}`
}

function told(history: History, proof: number, seq: number, change: string): Change {
  const words = `${change[0]!.toUpperCase()}${change.slice(1)}`
  const isSaid = cameBy(history, seq, proof) === 'after'
  if (hasSeen(history, seq, proof) || isSaid)
    return { seq, after: true, message: `${words} since${isSaid ? ', by the word of who was there' : ''}.` }
  const why = whyWordFails(history, seq, proof)
  const message = `${words}, by somebody who did not know of this: which came first is not known${why}.`
  const [changeLine, proofLine] = [seq, proof].map((line) => history.lines.get(line)?.entry.id)
  if (changeLine !== undefined && proofLine !== undefined)
    history.unordered?.push({ change: changeLine, proof: proofLine, message })
  return { seq, after: false, message }
}

/** Rests on fields of a thing. */
export function restsOnFields(
  kind: StoredKind | 'brief',
  id: string,
  fields: Readonly<Record<string, string>>,
  first: boolean
): Rests[] {
  return Object.entries(fields).map(([field, name]) => ({ key: fieldKey(kind, id, field), first, name }))
}

/** The same, where what was taken back as never so counts all the same: it may have been typed in before. */
export const countingSlips = (rests: readonly Rests[]): Rests[] =>
  rests.map((on) => ('key' in on ? { ...on, slips: true } : on))

/** Rests on a cable going from where it goes to where it goes. */
export const restsOnCable = (id: string, name: string, first: boolean): Rests[] => [
  ...restsOnFields('cable', id, { a: name, b: name }, first),
  restsOnPresence('cable', id, name)
]

/** Rests on a thing being in the visit as it was. */
export const restsOnPresence = (kind: StoredKind, id: string, name: string): Rests => ({
  key: presenceKey(kind, id),
  first: true,
  name
})
