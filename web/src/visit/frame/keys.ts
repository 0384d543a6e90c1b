import { useEffect } from 'react'
import { useNavigate } from 'react-router'
import { stages } from '@pasado/core/record/stages'
import { isPlainKey } from '../../app/keys'
import { doingsOf } from './commands'

/** Listens for the keys of a visit; none while somebody types or a sheet is called up. */
export function useVisitKeys(visit: string): void {
  const navigate = useNavigate()
  useEffect(() => {
    const go = (path: string) => void navigate(path, { state: { asked: Date.now() } })
    const doings = new Map(doingsOf(visit, go).map((doing) => [doing.key, doing]))
    const onKey = (event: KeyboardEvent) => {
      if (!isPlainKey(event)) return
      const unit = new URLSearchParams(location.search).get('unit')
      const stage = stages[Number(event.key) - 1]
      const doing = doings.get(event.key)
      if (stage) go(`/visit/${visit}/${stage}${unit ? `?unit=${unit}` : ''}`)
      else if (doing) doing.act()
      else return
      event.preventDefault()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [visit, navigate])
}
