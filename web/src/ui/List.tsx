import type { ComponentProps } from 'react'

/** Lines under each other with a rule between; `framed` with one above and below as well. */
export function List({
  framed = false,
  as: Element = 'ul',
  className = '',
  ...rest
}: Omit<ComponentProps<'ol'>, 'ref'> & { framed?: boolean; as?: 'ul' | 'ol' }) {
  return (
    <Element className={`divide-y divide-rule ${framed ? 'border-y border-rule' : ''} ${className}`.trim()} {...rest} />
  )
}
