import type * as RecordNow from '../src/visit/session/record-now'
import type * as Session from '../src/visit/session/session'
import type * as State from '../src/visit/session/visit-state'
import type * as Write from '../src/visit/session/write'

export type SessionModules = typeof RecordNow & typeof Session & typeof State & typeof Write

/** What an open visit is made of, loaded anew: as a page does that was loaded again. */
export const loadSession = async (): Promise<SessionModules> => ({
  ...(await import('../src/visit/session/record-now')),
  ...(await import('../src/visit/session/session')),
  ...(await import('../src/visit/session/visit-state')),
  ...(await import('../src/visit/session/write'))
})
