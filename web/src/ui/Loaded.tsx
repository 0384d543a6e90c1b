import type { ReactNode } from 'react'
import type { Read } from '../app/read'
import { Instead } from './Instead'
import { Waiting } from './Waiting'

/** A screen of something that is read: itself once it is there; until then that it is on its way, or why it is not shown. */
export function Loaded<T>({
  read: { value, problem },
  waiting = 'Loading …',
  to,
  back,
  children
}: {
  read: Read<T>
  waiting?: string
  /** Where to go where it cannot be shown. */ to?: string
  back?: string
  children: (value: T) => ReactNode
}) {
  if (value !== undefined) return children(value)
  if (problem === null) return <Waiting message={waiting} className="p-6" />
  return (
    <Instead message={problem} alert {...(to === undefined ? {} : { to })} {...(back === undefined ? {} : { back })} />
  )
}
