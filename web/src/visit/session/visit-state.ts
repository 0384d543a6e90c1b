import { create } from 'zustand'
import type { Catalogue, Model } from '@pasado/core/catalogue/model'
import type { ToldOfForeign } from '@pasado/core/documents/foreign'
import type { Standard } from '@pasado/core/policy/standard'
import type { EntryKind } from '@pasado/core/record/entries/all'
import type { Draft, Entry } from '@pasado/core/record/entry'
import type { VisitRecord } from '@pasado/core/record/record'
import type { AgendaPlan } from '@pasado/core/agenda/planned'
import type { Work } from '@pasado/core/agenda/work'
import type { Durations } from '@pasado/core/work/run/duration-keys'
import { nothingFolded, type Folded } from '@pasado/core/history/fold'
import type { History } from '@pasado/core/history/history'
import type { DocketRules } from '@pasado/core/rules/docket-rules'
import type { Finding } from '@pasado/core/rules/finding'
import { firstStandard } from '@pasado/core/rules/first-standard'

/** Whether what was written is on the server: all of it, on its way, or kept here until the server is back. */
export type Saving = 'saved' | 'saving' | 'not saved yet'

/** The entry that takes one back that was written here, and which that was. */
export interface Undoable {
  kind: EntryKind
  body: unknown
  of: string
}

interface VisitState {
  id: string | null
  entries: Entry[]
  /** What the server has confirmed, folded; and the record and history by that and what is still on its way. */
  confirmed: Folded
  record: VisitRecord
  history: History
  /** What the rules said last, and of which record: they are asked beside the page. */
  findings: Finding[]
  judgedRecord: VisitRecord
  /** All work that is left by it; and its plan, made beside the page a moment later, with when it was made. */
  works: readonly Work[]
  planned: { plan: AgendaPlan; at: number } | null
  /** What past visits took for the waits of this one; none while that is not known. */
  durations: Durations
  /** What the docket goes by; of a sealed visit, where nothing is open, nothing. */
  rules: DocketRules
  /** Whether they are asked of what was written since. */
  judging: boolean
  standard: Standard
  catalogue: Catalogue
  /** The models of the visit, in the versions it names. */
  models: Model[]
  /** Since when nobody has heard of the server: when what is shown was taken along; null where it is what the server has. */
  asOf: number | null
  /** What the rules said when it was sealed; null of an open visit. */
  verdicts: Finding[] | null
  /** That it came as a file; null of our own. */
  foreign: ToldOfForeign | null
  /** What does not hold of its seal, as the server found. */
  broken: string | null
  pending: Draft[]
  saving: Saving
  undoable: Undoable[]
  /** What was to be taken back, and others have set since: whoever is here says whether it is all the same. */
  undoAsked: { undoable: Undoable; names: string[] } | null
  problem: string | null
}

/** The visit that is open. What is written is shown at once, kept on the device, and sent until the server has it. */
export const useVisit = create<VisitState>(nothing)

/** What is shown while no visit is open. */
export function nothing(): VisitState {
  return {
    id: null,
    entries: [],
    confirmed: nothingFolded,
    ...nothingFolded,
    findings: [],
    judgedRecord: nothingFolded.record,
    works: [],
    planned: null,
    durations: new Map(),
    rules: {},
    judging: false,
    standard: firstStandard,
    catalogue: new Map(),
    models: [],
    asOf: null,
    verdicts: null,
    foreign: null,
    broken: null,
    pending: [],
    saving: 'saved',
    undoable: [],
    undoAsked: null,
    problem: null
  }
}
