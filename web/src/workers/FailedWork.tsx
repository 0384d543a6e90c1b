import { Button } from '../ui/Button'
import { useFailedWork } from './asking'

/** That something which is worked out beside the screen broke off: without it one would wait for ever. */
export function FailedWork() {
  const what = useFailedWork((state) => state.what)
  if (what === null) return null
  return (
    <div role="alert" className="flex flex-wrap items-center gap-3 border-b border-rule bg-well px-4 py-2">
      <p className="grow font-bold">
        {what} could not be worked out here. Try it again; if that does not help, load the page again. Nothing that was
        written is lost.
      </p>
      <Button kind="quiet" onClick={() => useFailedWork.setState({ what: null })}>
        Put away
      </Button>
    </div>
  )
}
