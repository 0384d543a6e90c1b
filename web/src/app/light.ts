import { create } from 'zustand'

export type Light = 'system' | 'daylight' | 'cupboard'
const KEY = 'pasado-light'

function isDark(light: Light): boolean {
  return light === 'cupboard' || (light === 'system' && matchMedia('(prefers-color-scheme: dark)').matches)
}

function show(light: Light): void {
  document.documentElement.classList.toggle('cupboard', isDark(light))
}

interface LightState {
  light: Light
  /** To the other light; from then on the system is not followed any more. */
  turn: () => void
}

/** Daylight or Cupboard; follows the system until told otherwise. */
export const useLight = create<LightState>((set, get) => ({
  light: (localStorage.getItem(KEY) as Light | null) ?? 'system',
  turn: () => {
    const light = isDark(get().light) ? 'daylight' : 'cupboard'
    localStorage.setItem(KEY, light)
    show(light)
    set({ light })
  }
}))

/** Shows the light that was chosen, and follows the system where none was. */
export function startLight(): void {
  show(useLight.getState().light)
  matchMedia('(prefers-color-scheme: dark)').addEventListener('change', () => show(useLight.getState().light))
}
