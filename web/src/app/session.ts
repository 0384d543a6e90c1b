import { create } from 'zustand'
import type { Me as Person } from '@pasado/core/api/session'
import { adopted } from '../outbox/adopt'
import { ApiProblem, ask } from './api'
import { forgetDrafts } from './draft'
import { copyOf, putAway, takeAlong } from './offline-copy'

/** Who is logged in; copies from before do not say whether a password has to be chosen. */
export type Me = Omit<Person, 'mustChoose'> & Partial<Pick<Person, 'mustChoose'>>

interface SessionState {
  /** Undefined while it is not known yet. */
  me: Me | null | undefined
  /** Whether `me` is who was here last, because the server could not be asked yet. */
  unasked: boolean
  look: () => Promise<void>
  logIn: (login: string, password: string) => Promise<void>
  logOut: (everywhere: boolean) => Promise<void>
}

/** As long as this it is waited to be told who is here. */
const PATIENCE_MS = 20_000

/** The session of this browser. */
export const useSession = create<SessionState>((set, getState) => ({
  me: undefined,
  unasked: false,
  look: async () => {
    try {
      const { person } = await ask('GET /session', { signal: AbortSignal.timeout(PATIENCE_MS) })
      set({ me: person, unasked: false })
      await keep(person)
    } catch (error) {
      if (!(error instanceof ApiProblem) || !error.passing) throw error
      const last = getState().me === undefined ? await copyOf<Me>('me') : null
      if (last && getState().me === undefined) set({ me: last.value, unasked: true })
      throw error
    }
  },
  logIn: async (login, password) => {
    const { person } = await ask('POST /session', { body: { login, password } })
    set({ me: person, unasked: false })
    await keep(person)
  },
  logOut: async (everywhere) => {
    await (everywhere ? ask('DELETE /sessions') : ask('DELETE /session'))
    set({ me: null, unasked: false })
    await keep(null)
  }
}))

/** Remembers who is here; what another took along goes, and with the session everything. */
async function keep(person: Me | null): Promise<void> {
  // What an earlier version could not send is taken over first: it belongs to who was here last.
  await adopted()
  const last = await copyOf<Me>('me')
  if (person === null || (last !== null && last.value.id !== person.id)) forgetDrafts()
  await putAway(person === null || (last !== null && last.value.id !== person.id) ? 'all' : 'old')
  if (person) await takeAlong('me', person)
}
