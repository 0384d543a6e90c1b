import { useEffect } from 'react'
import { useLocation, useNavigate, useParams } from 'react-router'
import type { Place } from '@pasado/core/standard/rule'

/** The address of a place in a visit's work, as the docket leads to it. */
export function placeKey({ kind, id, field }: Pick<Place, 'kind' | 'id' | 'field'>): string {
  return `${kind}.${id}.${field}`
}

const TRIES = 25
const AGAIN_MS = 60

/** Gives a function that goes to a place: its stage, then the very field, with the cursor in it. */
export function useGoTo(): (place: Place) => void {
  const navigate = useNavigate()
  const { id } = useParams()
  return (place) => {
    const unit = place.kind === 'unit' || place.kind === 'lamp' || place.kind === 'prompt' || (place.kind === 'secret' && place.stage === 'kit') ? `&unit=${place.id}` : ''
    void navigate(`/visit/${id}/${place.stage}?at=${encodeURIComponent(placeKey(place))}${unit}`, { state: { asked: Date.now() } })
  }
}

/** Puts the cursor where the address asks for, once it is on the screen. */
export function useArriveAtPlace(): void {
  const { search, state } = useLocation()
  useEffect(() => {
    const wanted = new URLSearchParams(search).get('at')
    if (!wanted) return
    let tries = 0
    const timer = setInterval(() => {
      tries++
      const place = document.querySelector(`[data-place="${CSS.escape(wanted)}"]`)
      if (place) {
        const focusable = place.matches('input, select, textarea, button') ? place : place.querySelector('input, select, textarea, button:not([disabled]), [tabindex="0"]')
        place.scrollIntoView({ block: 'center' })
        ;(focusable as HTMLElement | null)?.focus({ preventScroll: true })
      }
      if (place || tries >= TRIES) clearInterval(timer)
    }, AGAIN_MS)
    return () => clearInterval(timer)
  }, [search, state])
}
