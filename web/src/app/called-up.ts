import { create } from 'zustand'

/** What can be called up over a view: the first three belong to a visit. */
export type CalledUp = 'docket' | 'logbook' | 'plan' | 'keys' | 'anything' | 'password'

/** What is called up just now. One at a time. */
export const useCalledUp = create<{ what: CalledUp | null }>(() => ({ what: null }))

/** Calls something up, or puts away what is. */
export function callUp(what: CalledUp | null): void {
  useCalledUp.setState({ what })
}
