import { Sheet } from '../ui/Sheet'
import type { OutboxRow } from './rows'
import { countWords, homesWords } from './words'

/** Before logging out: what of one's own is on this device only, and that it stays. */
export function LogOutSheet({ unsent, onStay, onLeave }: { unsent: readonly OutboxRow[]; onStay: () => void; onLeave: () => void }) {
  const one = unsent.length === 1
  return (
    <Sheet open onClose={onStay} title="Not everything is sent" says={`${countWords(unsent)} of yours ${one ? 'is' : 'are'} on this device only: ${homesWords(unsent)}.`}>
      <p>Logging out does not take {one ? 'it' : 'them'} away: {one ? 'it stays' : 'they stay'} here and {one ? 'is' : 'are'} sent when you next log in on this device.</p>
      <div className="mt-3 flex flex-wrap gap-2"><button type="button" className="btn btn-plum" onClick={onStay}>Stay, and send first</button><button type="button" className="btn" onClick={onLeave}>Log out all the same</button></div>
    </Sheet>
  )
}
