import { useCallback, useEffect } from 'react'
import { useLocation, useNavigate, useParams } from 'react-router'
import type { Place } from '@pasado/core/rules/rule'

/** The address of a place in a visit's work, as the docket leads to it. */
export function placeKey({ kind, id, field }: Pick<Place, 'kind' | 'id' | 'field'>): string {
  return `${kind}.${id}.${field}`
}

const AGAIN_MS = 60
/** How often the place is looked for: six seconds, for a stage that has still to be loaded. */
const LOOKS = 100
/** For how many looks the cursor is held where it arrived. */
const KEPT_LOOKS = 4
/** What can have the cursor where a place is. */
const TAKES_CURSOR = 'input, select, textarea, button'
/** What a person does that says where the cursor is to be. */
const PRESSES = ['keydown', 'pointerdown'] as const

/** Where in the program a place of a visit is: its stage, its unit or box, and the very field. */
export function addressOf(visit: string, place: Place): string {
  return `/visit/${visit}/${place.stage}?at=${encodeURIComponent(placeKey(place))}${chosenBy(place)}`
}

/** The part of an address that chooses the unit or the box a place is of. */
function chosenBy(place: Place): string {
  if (place.kind === 'item') return `&box=${place.id}`
  const isOfUnit = ['unit', 'lamp', 'prompt'].includes(place.kind) || (place.kind === 'secret' && place.stage === 'kit')
  return isOfUnit ? `&unit=${place.id}` : ''
}

/** Gives a function that goes to a place: its stage, then the very field, with the cursor in it. */
export function useGoTo(): (place: Place) => void {
  const navigate = useNavigate()
  const { id } = useParams()
  return useCallback((place) => void navigate(addressOf(id!, place), { state: { asked: Date.now() } }), [navigate, id])
}

/** Whether somebody has begun to type into something. */
function isField(element: Element | null): boolean {
  return element !== null && /^(INPUT|TEXTAREA|SELECT)$/.test(element.tagName)
}

/** Puts the cursor into a place. @returns what has it then (the place itself, where nothing in it takes one), or null where the place is not on the screen */
function cursorInto(wanted: string): Element | null {
  const place = document.querySelector(`[data-place="${CSS.escape(wanted)}"]`)
  if (!place) return null
  const focusable = place.matches(TAKES_CURSOR)
    ? place
    : (place.querySelector('input, select, textarea, button:not([disabled]), [tabindex="0"]') ?? place)
  const folded = place.closest('details')
  if (folded) folded.open = true
  place.scrollIntoView({ block: 'center' })
  ;(focusable as HTMLElement).focus({ preventScroll: true })
  return focusable
}

/**
 * Puts the cursor where the address asks for, as soon as it is on the screen; not where somebody has begun to type
 * elsewhere meanwhile. It is kept there for a moment: a sheet that closes gives the cursor back to what opened it,
 * on a slow device after the place has appeared. The first press of a person ends both.
 */
export function useArriveAtPlace(): void {
  const { search, state } = useLocation() as { search: string; state: unknown }
  useEffect(() => {
    const wanted = new URLSearchParams(search).get('at')
    if (!wanted) return
    const from = document.activeElement
    let looks = 0
    let arrived: Element | null = null
    let kept = 0
    const end = () => {
      clearInterval(timer)
      for (const press of PRESSES) document.removeEventListener(press, pressed, true)
    }
    const pressed = (event: Event) => {
      // A key still held from the press that led here says nothing.
      if (!(event instanceof KeyboardEvent && event.repeat)) end()
    }
    const look = () => {
      const now = document.activeElement
      const isElsewhere = !arrived && now !== from && isField(now)
      if (isElsewhere || ++looks > LOOKS || kept >= KEPT_LOOKS) return end()
      if (arrived?.isConnected && (arrived === now || arrived.matches(`[data-place]:not(${TAKES_CURSOR})`))) kept += 1
      else arrived = cursorInto(wanted)
    }
    const timer = setInterval(look, AGAIN_MS)
    for (const press of PRESSES) document.addEventListener(press, pressed, true)
    return end
  }, [search, state])
}
