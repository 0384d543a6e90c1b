import { create } from 'zustand'

/** A newer version of the program that waits on this device: how it is loaded; null where there is none. */
export const useNewerProgram = create<{ load: (() => void) | null }>(() => ({ load: null }))
