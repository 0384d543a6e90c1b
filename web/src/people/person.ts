import type { Me } from '../app/session'

/** Somebody of the company, as the server lists them. */
export interface ListedPerson extends Me {
  leftAt: string | null
  mustChoose: boolean
  sessions: number
  openVisits: number
}

/** A password to begin with, to be told to somebody. */
export interface Given {
  name: string
  login: string
  password: string
}

export const roleWords: Record<Me['role'], string> = { technician: 'technician', lead: 'lead', office: 'office' }
