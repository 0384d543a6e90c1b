/** A home as lists show it: who lives there, and the visit that knows it last. */
export interface ListedHome {
  id: string
  customerId: string
  customer: string
  street: string
  town: string
  latestVisit: string
}
