import type { Unsettled } from '@pasado/core/history/conflicts'
import { Button } from '../../ui/Button'
import { settle, useMayWrite } from '../session/facts'

/** A press for each of the values that stand against each other, for whoever may write. */
export function KeepOne({ conflict, valueOf }: { conflict: Unsettled; valueOf: (value: unknown) => string }) {
  if (!useMayWrite()) return null
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      {conflict.values.map(({ seq, value }) => (
        <Button key={seq} onClick={() => settle(conflict, value)}>
          Keep {valueOf(value)}
        </Button>
      ))}
    </div>
  )
}
