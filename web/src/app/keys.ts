import { useEffect } from 'react'
import { useNavigate } from 'react-router'
import { callUp, useCalledUp } from './called-up'
import { useLight } from './light'

/** The keys that work in every view, as the list of keys shows them. */
export const everywhereKeys: readonly [string, string][] = [
  ['Ctrl K', 'do anything, also while typing'],
  ['/', 'find a home'],
  ['t', 'Daylight or Cupboard'],
  ['?', 'these keys']
]

function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
}

// What is called up for the first time may still be on its way.
const somethingCalledUp = () =>
  useCalledUp.getState().what !== null || document.querySelector('[role="dialog"]') !== null

/** Whether a key is meant as a key of the program: nobody is typing, and nothing lies over the view. */
export function isPlainKey(event: KeyboardEvent): boolean {
  return !event.ctrlKey && !event.metaKey && !event.altKey && !isTyping(event.target) && !somethingCalledUp()
}

/** Listens for the keys that work in every view. */
export function useKeysEverywhere(): void {
  const navigate = useNavigate()
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && !event.altKey && !event.shiftKey && event.key.toLowerCase() === 'k') {
        // The browser would go to its own field for addresses otherwise.
        event.preventDefault()
        if (useCalledUp.getState().what === 'anything') callUp(null)
        else if (!somethingCalledUp()) callUp('anything')
        return
      }
      if (!isPlainKey(event)) return
      if (event.key === '/') void navigate('/homes')
      else if (event.key === 't') useLight.getState().turn()
      else if (event.key === '?') callUp('keys')
      else return
      event.preventDefault()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [navigate])
}
