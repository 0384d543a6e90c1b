import type { Catalogue } from '../catalogue/model'
import type { Standard } from '../policy/standard'
import type { ThingKind } from '../record/facts'
import type { Folded } from '../history/fold'
import type { Outcome } from '../rules/rule'

/** A logbook folded up to a line, with what it is judged by. */
export interface Revision extends Folded {
  catalogue: Catalogue
  standard: Standard
  /** In which zone moments are told; the device's own where it is left out. */ zone?: string
}

/** One field that is another now. */
export interface Change {
  field: string
  label: string
  before: string | null
  after: string | null
  /** Who set it last; null where that is not recorded for it. */
  by: { name: string; at: string } | null
  /** Why, as far as the record tells: rules that were broken before, reasons that were given. */
  why: string[]
}

/** What changed of one thing. */
export interface ThingChanges {
  kind: ThingKind | 'choices' | 'plan'
  id: string
  name: string
  is: 'added' | 'gone' | 'changed'
  changes: Change[]
  why: string[]
}

/** A rule whose outcome is another now. */
export interface OutcomeChange {
  rule: string
  name: string
  subject: string | null
  before: Outcome
  after: Outcome
  message: string
}

/** A room as it was measured before and after. */
export interface RoomChange {
  name: string
  before: RoomFigures | null
  after: RoomFigures | null
}
export interface RoomFigures {
  dbm: number | null
  downMbps: number | null
  outcome: 'holds' | 'breaks' | 'unproven'
}

/** Everything that differs from one revision to another, units first. */
export interface Changes {
  things: ThingChanges[]
  outcomes: OutcomeChange[]
  rooms: RoomChange[]
  /** Rooms, rules and answers of the visit before that the later one has not come to again: no change, only not looked at. */
  notAgain: number
}
