import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { takeBack } from '../session/write'
import { useVisit } from '../session/visit-state'

/** Somebody else has set since what was to be taken back: theirs would go with it. */
export function UndoSheet() {
  const asked = useVisit((state) => state.undoAsked)
  const leave = () => useVisit.setState({ undoAsked: null })
  return (
    <Sheet open={asked !== null} onClose={leave} title="Take it back all the same?">
      <p>
        {asked?.names.join(' and ')} set the same since. What stood before your own change would stand again, and theirs
        would go.
      </p>
      <div className="mt-4 flex flex-wrap gap-3">
        <Button kind="main" onClick={leave}>
          Leave it as it is
        </Button>
        <Button onClick={() => asked && takeBack(asked.undoable)}>Take it back</Button>
      </div>
    </Sheet>
  )
}
