import type { ComponentProps } from 'react'
import type { Body } from '@pasado/core/record/entries/all'
import { Button } from '../../ui/Button'
import { write } from '../session/write'

/** Takes a thing out of the visit; it can be undone. */
export function TakeOut({
  thing,
  id,
  onGone,
  ...rest
}: Omit<ComponentProps<typeof Button>, 'kind' | 'onClick'> & Body<'thing.removed'> & { onGone?: () => void }) {
  return (
    <Button
      kind="quiet"
      onClick={() => {
        write('thing.removed', { thing, id })
        onGone?.()
      }}
      {...rest}
    />
  )
}
