import { Sheet } from '../ui/Sheet'
import type { OutboxRow } from './rows'
import { countWords, homesWords } from './words'
import { Button } from '../ui/Button'

/** Before logging out: what of one's own is on this device only, and that it stays. */
export function LogOutSheet({
  unsent,
  onStay,
  onLeave
}: {
  unsent: readonly OutboxRow[]
  onStay: () => void
  onLeave: () => void
}) {
  const waiting = unsent.filter(({ refused }) => refused === null)
  const refused = unsent.filter((row) => row.refused !== null)
  return (
    <Sheet
      open
      onClose={onStay}
      title={waiting.length ? 'Not everything is sent' : 'Not everything was taken'}
      description="Logging out takes nothing away: it stays on this device, for you only."
    >
      {waiting.length > 0 && (
        <p>
          <b>
            {countWords(waiting)} {waiting.length === 1 ? 'waits' : 'wait'}
          </b>{' '}
          to be sent ({homesWords(waiting)}), and {waiting.length === 1 ? 'goes' : 'go'} when you next log in here.
        </p>
      )}
      {refused.length > 0 && (
        <p className="mt-2">
          <b>
            {countWords(refused)} {refused.length === 1 ? 'was' : 'were'} not taken
          </b>{' '}
          ({homesWords(refused)}): what {refused.length === 1 ? 'it says' : 'they say'} is shown above every view until
          you put it away.
        </p>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        <Button kind="main" onClick={onStay}>
          Stay
        </Button>
        <Button onClick={onLeave}>Log out all the same</Button>
      </div>
    </Sheet>
  )
}
