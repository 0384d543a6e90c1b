import { format } from 'date-fns'
import { describeEntry } from '@pasado/core/documents/describe-entry'
import { entryById } from '@pasado/core/history/slips'
import { maySayOrder } from '@pasado/core/history/words'
import type { History } from '@pasado/core/history/history'
import type { Placed } from '@pasado/core/record/entry'
import type { Finding } from '@pasado/core/rules/finding'
import { useSession, type Me } from '../../app/session'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { useVisit } from '../session/visit-state'
import { write } from '../session/write'

/** Whether this person may say of a finding which came first. */
export function useHasSay(finding: Finding): boolean {
  const me = useSession((state) => state.me)
  return useVisit(({ history }) => sayOf(finding, history, me).length > 0)
}

/** The changes and proofs of a finding of which a person may say which came first. */
function sayOf(finding: Finding, history: History, me: Me | null | undefined): { change: Placed; proof: Placed }[] {
  if (!me || me.role === 'office') return []
  const { id, role } = me
  return (finding.unordered ?? []).flatMap((pair) => {
    const [change, proof] = [entryById(history, pair.change), entryById(history, pair.proof)]
    return change && proof && maySayOrder(history, change.seq, proof.seq, { id, role }) ? [{ change, proof }] : []
  })
}

/** Asks whoever was there which came first, a change or a proof that did not know of it: both are told with their times. */
export function OrderSheet({ finding, onClose }: { finding: Finding; onClose: () => void }) {
  const me = useSession((state) => state.me)
  const history = useVisit((state) => state.history)
  const pairs = sayOf(finding, history, me)
  const [pair] = pairs
  if (!pair) return null
  const { change, proof } = pair
  const say = (came: 'before' | 'after') => {
    write('order.said', { change: change.id, proof: proof.id, came })
    if (pairs.length === 1) onClose()
  }
  return (
    <Sheet
      open
      onClose={onClose}
      title="Which came first?"
      description="Two devices did not know of each other, and no clock decides. Who was there may say; it is told wherever it counts, with your name."
    >
      <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-3">
        <Told label="Changed" entry={change} />
        <Told label="Found" entry={proof} />
      </dl>
      <div className="mt-4 flex flex-col gap-2">
        <Button onClick={() => say('before')}>The change came first, it was found so after it</Button>
        <Button onClick={() => say('after')}>It was found so first, the change came after</Button>
      </div>
    </Sheet>
  )
}

function Told({ label, entry }: { label: string; entry: Placed }) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const moment = (iso: string) => format(new Date(iso), 'd MMM HH:mm')
  return (
    <>
      <dt className="label">{label}</dt>
      <dd>
        {describeEntry(entry, record, catalogue, moment)}
        <span className="fine block">
          {entry.by.name}, {moment(entry.at)} by that device’s clock
        </span>
      </dd>
    </>
  )
}
