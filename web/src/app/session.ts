import { create } from 'zustand'
import { ask } from './api'

/** Who is logged in. */
export interface Me {
  id: string
  login: string
  name: string
  role: 'technician' | 'lead' | 'office'
}

interface SessionState {
  /** Undefined while it is not known yet. */
  me: Me | null | undefined
  look: () => Promise<void>
  logIn: (login: string, password: string) => Promise<void>
  logOut: (everywhere: boolean) => Promise<void>
}

/** The session of this browser. */
export const useSession = create<SessionState>((set) => ({
  me: undefined,
  look: async () => {
    const { person } = await ask<{ person: Me | null }>('GET', '/session')
    set({ me: person })
  },
  logIn: async (login, password) => {
    const { person } = await ask<{ person: Me }>('POST', '/session', { login, password })
    set({ me: person })
  },
  logOut: async (everywhere) => {
    await ask('DELETE', everywhere ? '/sessions' : '/session')
    set({ me: null })
  }
}))

/** This device's own id: what one device wrote in a row never conflicts with itself. A tab is a device. */
export function deviceId(): string {
  const kept = sessionStorage.getItem('pasado-device')
  if (kept) return kept
  const made = crypto.randomUUID()
  sessionStorage.setItem('pasado-device', made)
  return made
}
