import type { Author } from '@pasado/core/record/entry'
import { demoId } from './ids'

/** Somebody of the made-up company, with a login for trying things out. */
export interface DemoPerson extends Author {
  login: string
  role: 'technician' | 'lead' | 'office'
}

const person = (login: string, name: string, role: DemoPerson['role']): DemoPerson => ({ id: demoId('person', login), login, name, role })

export const isolde = person('isolde', 'Isolde Marram', 'technician')
export const corin = person('corin', 'Corin Saltway', 'technician')
export const wenna = person('wenna', 'Wenna Tarrow', 'lead')
export const petroc = person('petroc', 'Petroc Lunn', 'office')

/** Tern & Tideway's people. */
export const demoPeople: readonly DemoPerson[] = [isolde, corin, wenna, petroc]

/** The one password of every demo login; obviously made up. */
export const demoPassword = 'skerrow-demo-lantern'
