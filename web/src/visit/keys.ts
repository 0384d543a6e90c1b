import { useEffect } from 'react'
import { useNavigate } from 'react-router'
import { stages } from '@pasado/core/record/stages'
import { standing } from '@pasado/core/record/record'
import { useLight } from '../app/light'
import { undo, useVisit, write } from './store'

/** What can be called up over a visit. */
export type CalledUp = 'docket' | 'logbook' | 'keys' | 'plan'

/** The keys of a visit, as the list of keys shows them. */
export const visitKeys: readonly [string, string][] = [
  ['1–9', 'go to a stage'], ['d', 'docket'], ['b', 'logbook'], ['l', 'log a lamp'], ['w', 'end the oldest wait'], ['r', 'run plan'], ['m', 'measure'], ['n', 'write a note'], ['u', 'undo'],
  ['[  ]', 'previous and next unit'], ['/', 'find a home'], ['t', 'Daylight or Cupboard'], ['?', 'these keys']
]

function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
}

/** Listens for the keys of a visit; none while somebody types or a sheet is called up. */
export function useVisitKeys(visit: string, call: (what: CalledUp) => void): void {
  const navigate = useNavigate()
  useEffect(() => {
    const go = (path: string) => void navigate(path, { state: { asked: Date.now() } })
    const stepUnit = (by: number) => {
      const units = standing(useVisit.getState().record.units)
      if (units.length === 0) return
      const search = new URLSearchParams(location.search)
      const at = units.findIndex(({ id }) => id === search.get('unit'))
      const next = units[(Math.max(at, 0) + (at < 0 ? 0 : by) + units.length) % units.length]!
      go(`${location.pathname}?unit=${next.id}`)
    }
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target) || document.querySelector('[role="dialog"]')) return
      const unit = new URLSearchParams(location.search).get('unit')
      const stage = stages[Number(event.key) - 1]
      if (stage) go(`/visit/${visit}/${stage}${unit ? `?unit=${unit}` : ''}`)
      else if (event.key === 'd') call('docket')
      else if (event.key === 'b') call('logbook')
      else if (event.key === 'r') call('plan')
      else if (event.key === '?') call('keys')
      else if (event.key === 'l') go(`/visit/${visit}/start?at=lamp.now.log${unit ? `&unit=${unit}` : ''}`)
      else if (event.key === 'm') go(`/visit/${visit}/prove?part=rooms`)
      else if (event.key === 'n') go(`/visit/${visit}/brief?at=brief.brief.note`)
      else if (event.key === 'w') {
        const oldest = Object.values(useVisit.getState().record.waits).filter(({ endedAt }) => endedAt === null).sort((a, b) => a.seq - b.seq)[0]
        if (oldest) write('wait.ended', { id: oldest.id })
      } else if (event.key === 'u') undo()
      else if (event.key === '[') stepUnit(-1)
      else if (event.key === ']') stepUnit(1)
      else if (event.key === '/') go('/homes')
      else if (event.key === 't') useLight.getState().turn()
      else return
      event.preventDefault()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [visit, call, navigate])
}
