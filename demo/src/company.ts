import type { Author } from '@pasado/core/record/attribution'
import { demoId } from './ids'

/** Somebody of the made-up company, with a login for trying things out. */
export interface DemoPerson extends Author {
  login: string
  role: 'technician' | 'lead' | 'office'
}

const person = (login: string, name: string, role: DemoPerson['role']): DemoPerson => ({
  id: demoId('person', login),
  login,
  name,
  role
})

export const isolde = person('isolde', 'Isolde Marram', 'technician')
export const corin = person('corin', 'Corin Saltway', 'technician')
export const wenna = person('wenna', 'Wenna Tarrow', 'lead')
export const petroc = person('petroc', 'Petroc Lunn', 'office')

/** Tern & Tideway's people. */
export const demoPeople: readonly DemoPerson[] = [isolde, corin, wenna, petroc]

/** The one password of every demo login; obviously made up. */
export const demoPassword = 'skerrow-demo-lantern'

const town = (name: string) => `town ${name}`

/** How far it is on the isles, door to door in minutes, ferries and all. */
export const demoTravel: readonly { a: string; b: string; minutes: number }[] = [
  { a: 'depot', b: town('Great Skerrow'), minutes: 15 },
  { a: 'depot', b: town('Little Skerrow'), minutes: 40 },
  { a: 'depot', b: town('Ness Skerrow'), minutes: 50 },
  { a: town('Great Skerrow'), b: town('Little Skerrow'), minutes: 35 },
  { a: town('Great Skerrow'), b: town('Ness Skerrow'), minutes: 45 },
  { a: town('Little Skerrow'), b: town('Ness Skerrow'), minutes: 40 },
  { a: town('Great Skerrow'), b: town('Great Skerrow'), minutes: 10 },
  { a: town('Ness Skerrow'), b: town('Ness Skerrow'), minutes: 12 }
]

/** When the ferries let each of the smaller isles be reached and left, in minutes of the day. */
export const demoFerries: Readonly<Record<string, { fromMin: number; toMin: number }[]>> = {
  'Little Skerrow': [
    { fromMin: 450, toMin: 780 },
    { fromMin: 840, toMin: 1110 }
  ],
  'Ness Skerrow': [{ fromMin: 480, toMin: 1080 }]
}
