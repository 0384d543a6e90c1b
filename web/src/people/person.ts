import type { Me } from '../app/session'

export type { ListedPerson } from '@pasado/core/api/people'

/** A password to begin with, to be told to somebody. */
export interface Given {
  name: string
  login: string
  password: string
}

export const roleWords: Record<Me['role'], string> = { technician: 'technician', lead: 'lead', office: 'office' }
