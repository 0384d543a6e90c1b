import type { Facts } from '@pasado/core/record/facts'

/** The homes that are shown, each with who lives there and what comes in from the street. */
export const homes = {
  lighthouse: {
    customerName: 'Ailsa Drumgold',
    street: '4 Lantern Rise',
    town: 'Great Skerrow',
    phone: '555-0141',
    secondContact: 'Neighbour at 6 Lantern Rise, 555-0142',
    accessLine: 'coax',
    speedDownMbps: 500,
    speedUpMbps: 50,
    providerSettings: 'automatic',
    telephone: false
  },
  captain: {
    customerName: 'Bram Oskerry',
    street: '9 Ferryslip Terrace',
    town: 'Great Skerrow',
    phone: '555-0117',
    secondContact: 'bram@example.org',
    accessLine: 'telephone-line',
    speedDownMbps: 80,
    speedUpMbps: 20,
    providerSettings: 'login',
    telephone: true
  },
  boathouse: {
    customerName: 'Thessaly Quern',
    street: '1 Slipway Hard',
    town: 'Little Skerrow',
    phone: '555-0123',
    secondContact: 'quern@example.org',
    accessLine: 'fibre',
    speedDownMbps: 900,
    speedUpMbps: 100,
    providerSettings: 'automatic',
    telephone: false
  },
  bunkhouse: {
    customerName: 'Skerrow Kelp Farm',
    street: '22 Dulse Road',
    town: 'Ness Skerrow',
    phone: '555-0155',
    secondContact: 'Farm office, 555-0156',
    accessLine: 'coax',
    speedDownMbps: 250,
    speedUpMbps: 25,
    providerSettings: 'automatic',
    telephone: false
  },
  bakery: {
    customerName: 'Oriel Pennock',
    street: '15 Oven Lane',
    town: 'Great Skerrow',
    phone: '555-0168',
    secondContact: 'Bakery counter, 555-0169',
    accessLine: 'existing-router',
    speedDownMbps: 200,
    speedUpMbps: 20,
    providerSettings: 'automatic',
    telephone: false
  },
  studio: {
    customerName: 'Ismay Corrant',
    street: '7 Netmakers Yard',
    town: 'Little Skerrow',
    phone: '555-0172',
    secondContact: 'ismay@example.org',
    accessLine: 'fibre',
    speedDownMbps: 900,
    speedUpMbps: 900,
    providerSettings: 'automatic',
    telephone: true
  },
  gatehouse: {
    customerName: 'Rufus Winnick',
    street: '3 Toll Steps',
    town: 'Great Skerrow',
    phone: '555-0131',
    secondContact: 'rufus@example.org',
    accessLine: 'coax',
    speedDownMbps: 300,
    speedUpMbps: 30,
    providerSettings: 'automatic',
    telephone: false
  },
  chandlery: {
    customerName: 'Jocelin Farr',
    street: '11 Chandler Row',
    town: 'Ness Skerrow',
    phone: '555-0147',
    secondContact: 'Shop, 555-0148',
    accessLine: 'coax',
    speedDownMbps: 500,
    speedUpMbps: 50,
    providerSettings: 'automatic',
    telephone: false
  },
  smokehouse: {
    customerName: 'Perran Holloway',
    street: '2 Smokehouse Lane',
    town: 'Little Skerrow',
    phone: '555-0151',
    secondContact: 'perran@example.org',
    accessLine: 'coax',
    speedDownMbps: 250,
    speedUpMbps: 25,
    providerSettings: 'automatic',
    telephone: false
  },
  schoolhouse: {
    customerName: 'Maud Eddering',
    street: '18 Slate Walk',
    town: 'Great Skerrow',
    phone: '555-0135',
    secondContact: 'maud@example.org',
    accessLine: 'fibre',
    speedDownMbps: 900,
    speedUpMbps: 100,
    providerSettings: 'automatic',
    telephone: false
  }
} satisfies Record<string, Facts<'brief'>>

export type HomeName = keyof typeof homes
