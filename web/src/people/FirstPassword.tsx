import { Sheet } from '../ui/Sheet'
import type { Given } from './person'
import { Button } from '../ui/Button'

/** A password to begin with, shown this once. */
export function FirstPassword({ given, onClose }: { given: Given | null; onClose: () => void }) {
  return (
    <Sheet
      open={given !== null}
      onClose={onClose}
      title={`For ${given?.name ?? ''}`}
      description="It is shown this once. Tell it by voice; do not write it into a message."
    >
      {given && (
        <>
          <dl className="grid grid-cols-[auto_minmax(0,1fr)] items-baseline gap-x-4 gap-y-2">
            <dt className="label">Login</dt>
            <dd className="exact text-lg">{given.login}</dd>
            <dt className="label">Password</dt>
            <dd data-secret className="exact break-all text-lg">
              {given.password}
            </dd>
          </dl>
          <p className="mt-3">At the first log-in {given.name} chooses another that nobody else knows.</p>
          <p className="mt-4">
            <Button kind="main" onClick={onClose}>
              It is told
            </Button>
          </p>
        </>
      )}
    </Sheet>
  )
}
