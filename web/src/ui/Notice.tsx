import type { HTMLAttributes } from 'react'

const edges = { plum: 'border-plum', ink: 'border-ink', edge: 'border-edge' } as const

/** Something said aside of the work: plum for what offers something, ink for what has to be seen, edge for what is only told. */
export function Notice({
  edge,
  small = false,
  as: Element = 'div',
  className = '',
  ...rest
}: HTMLAttributes<HTMLElement> & {
  edge: keyof typeof edges
  /** For one that lies among other lines. */ small?: boolean
  as?: 'div' | 'p' | 'section' | 'ul' | 'li'
}) {
  return (
    <Element
      className={`border-l-4 bg-well ${edges[edge]} ${small ? 'p-2 text-sm' : 'p-3'} ${className}`.trim()}
      {...rest}
    />
  )
}
