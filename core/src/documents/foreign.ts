/** What is to be told of a visit that came as a file: by whom, when, and what of it is not this company's. */
export interface ToldOfForeign {
  by: string
  at: string
  /** Whether it was checked by a standard that is not one of ours. */
  standard: boolean
  /** Its models that are not of our catalogue, in words. */
  models: string[]
  /** Whether its seal is by a key that was never this company's. */
  key: boolean
}
