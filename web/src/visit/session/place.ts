import { useEffect } from 'react'
import { useLocation, useNavigate, useParams } from 'react-router'
import type { Place } from '@pasado/core/rules/rule'

/** The address of a place in a visit's work, as the docket leads to it. */
export function placeKey({ kind, id, field }: Pick<Place, 'kind' | 'id' | 'field'>): string {
  return `${kind}.${id}.${field}`
}

const TRIES = 25
const AGAIN_MS = 60

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
  return (place) => void navigate(addressOf(id!, place), { state: { asked: Date.now() } })
}

/** Whether somebody has begun to type into something. */
function isField(element: Element | null): boolean {
  return element !== null && /^(INPUT|TEXTAREA|SELECT)$/.test(element.tagName)
}

/** Puts the cursor where the address asks for, as soon as it is on the screen; not where somebody has begun to type elsewhere meanwhile. */
export function useArriveAtPlace(): void {
  const { search, state } = useLocation() as { search: string; state: unknown }
  useEffect(() => {
    const wanted = new URLSearchParams(search).get('at')
    if (!wanted) return
    const from = document.activeElement
    let tries = 0
    const arrive = (): boolean => {
      if (document.activeElement !== from && isField(document.activeElement)) return true
      const place = document.querySelector(`[data-place="${CSS.escape(wanted)}"]`)
      if (!place) return ++tries >= TRIES
      const focusable = place.matches('input, select, textarea, button')
        ? place
        : place.querySelector('input, select, textarea, button:not([disabled]), [tabindex="0"]')
      const folded = place.closest('details')
      if (folded) folded.open = true
      place.scrollIntoView({ block: 'center' })
      ;(focusable as HTMLElement | null)?.focus({ preventScroll: true })
      return true
    }
    const timer = setInterval(() => {
      if (arrive()) clearInterval(timer)
    }, AGAIN_MS)
    return () => clearInterval(timer)
  }, [search, state])
}
