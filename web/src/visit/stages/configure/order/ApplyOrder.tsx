import { useMemo } from 'react'
import { APPLIED_RULE, applyOrder, type Change } from '@pasado/core/work/configure/apply-order'
import { changesInOrder } from '@pasado/core/agenda/in-order'
import { carriedThrough } from '@pasado/core/history/carried'
import { useStarts } from '../../../frame/use-agenda'
import { useMayWrite } from '../../../session/facts'
import { placeKey } from '../../../session/place'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { Button } from '../../../../ui/Button'
import { List } from '../../../../ui/List'

/** How far a change cuts off who makes it. */
const cutWords: Record<Change['cuts'], string> = {
  no: 'you stay joined',
  'join again': 'cuts you off: join again under the new name',
  'new address': 'cuts you off: its page is at the new address afterwards',
  'until it is back': 'gone until it is back'
}

/** Configure: every change in the order in which nobody is cut off from what still needs one. */
export function ApplyOrder() {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const mayWrite = useMayWrite()
  // Whoever said that every page is applied said it of each, as long as that stands.
  const isAll = useVisit(({ findings }) =>
    findings.some(({ rule, outcome }) => rule === APPLIED_RULE && outcome === 'holds')
  )
  const history = useVisit((state) => state.history)
  const since = useMemo(() => carriedThrough(history), [history])
  const start = useStarts()
  const changes = useMemo(
    () =>
      changesInOrder(
        applyOrder(record, catalogue, since).map((change) => ({ ...change, applied: change.applied || isAll })),
        start
      ),
    [record, catalogue, since, isAll, start]
  )
  const next = changes.find(({ applied }) => !applied)
  if (changes.length === 0) return <p>Nothing is set yet that would have to be applied.</p>
  return (
    <div>
      <p className="text-soft">
        What is applied, then the rest as the run plan has it: the far units first, the router after them; on each unit
        what cuts you off least first; fixed addresses last. Press each page’s own Apply before you leave it.
      </p>
      <p className="mt-1" role="status">
        {changes.filter(({ applied }) => applied).length} of {changes.length} applied
        {next ? (
          <>
            ; next{' '}
            <b>
              {next.name}: {next.label}
            </b>
          </>
        ) : (
          '.'
        )}
      </p>
      <List
        as="ol"
        framed
        className="mt-3"
        aria-label="Changes in their order"
        data-place={placeKey({ kind: 'answer', id: APPLIED_RULE, field: 'order' })}
      >
        {changes.map(({ id, name, label, cuts, needsRestart, applied }, at) => (
          <li
            key={id}
            className={`grid grid-cols-[2rem_minmax(0,1fr)_auto] items-center gap-x-3 py-2 ${cuts === 'no' ? 'pl-[13px]' : 'border-l-[5px] border-l-ink pl-2'}`}
          >
            <b className="text-soft">{at + 1}</b>
            <div className={applied ? 'text-soft' : ''}>
              <p>
                <b>{name}</b>: {label}
              </p>
              <p className="fine">
                {cutWords[cuts]}
                {needsRestart ? '; takes effect after a restart' : ''}
              </p>
            </div>
            {mayWrite && (
              <Button
                aria-pressed={applied}
                aria-label={`${name}, ${label}: applied`}
                onClick={() =>
                  write('rule.answered', { rule: APPLIED_RULE, subject: id, answer: applied ? 'no' : 'yes' })
                }
              >
                {applied ? 'Applied' : 'It is applied'}
              </Button>
            )}
          </li>
        ))}
      </List>
    </div>
  )
}
