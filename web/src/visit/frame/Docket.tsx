import { memo, useCallback, useEffect, useMemo, useState } from 'react'
import { ruleKey } from '@pasado/core/record/record'
import { stageNames } from '@pasado/core/record/stages'
import { docketOf } from '@pasado/core/agenda/docket'
import { titleOf } from '@pasado/core/agenda/title'
import type { Finding } from '@pasado/core/rules/finding'
import { blocks, heaviestFirst } from '@pasado/core/rules/weigh'
import { useSession } from '../../app/session'
import { Chips } from '../../ui/Chips'
import { Mark } from '../../ui/Mark'
import { Sheet } from '../../ui/Sheet'
import { useConflicts, useMayWrite } from '../session/facts'
import { useWhyNotWaive } from './use-why-not-waive'
import { useGoTo } from '../session/place'
import { useVisit } from '../session/visit-state'
import { write } from '../session/write'
import { ConflictLine } from './ConflictLine'
import { DocketNarrow, narrowed, wholeDocket } from './DocketNarrow'
import type { Grant } from './GrantSheet'
import { GrantSheet } from './later-sheets'
import { OrderSheet, useHasSay } from './OrderSheet'
import { Button } from '../../ui/Button'
import { figureWords } from './figure-words'
import { useAgenda, useStarts } from './use-agenda'
import { List } from '../../ui/List'

/** What stands between the visit and sign-off, in one line. */
function countWords(open: readonly Finding[]): string {
  const broken = open.filter(({ outcome }) => outcome === 'breaks').length
  const parts = [
    broken ? `${broken} ${broken === 1 ? 'breaks' : 'break'}` : '',
    open.length - broken ? `${open.length - broken} unproven` : ''
  ]
  return parts.filter(Boolean).join(' · ')
}

/** What was granted, by whom, until when and why; else what mends it. */
function grantOrMend({ granted, lapsed, mend }: Finding): string {
  if (!granted) return `${mend ? ` ${mend}` : ''}${lapsed ? ` ${lapsed}` : ''}`
  const until = granted.until ? ` until ${granted.until}` : ''
  return ` ${granted.kind === 'waived' ? 'Waived' : 'Acknowledged'} by ${granted.by}${until}: ${granted.reason}`
}

/** The docket: heaviest first, each line going straight to the field that mends it. */
export function Docket({ onGone }: { onGone?: () => void }) {
  const findings = useVisit((state) => state.findings)
  const conflicts = useConflicts()
  const sealed = useVisit((state) => state.record.seal !== null)
  const [grant, setGrant] = useState<Grant | null>(null)
  const [asked, setAsked] = useState<Finding | null>(null)
  const answers = useVisit((state) => state.record.answers)
  const mayWrite = useMayWrite()
  const goTo = useGoTo()
  const ordered = heaviestFirst(findings)
  const open = ordered.filter(blocks)
  const settled = ordered.filter((finding) => finding.outcome === 'waived' || finding.granted?.kind === 'acknowledged')
  const total = open.length + conflicts.length
  const isLong = useLong(useVisit((state) => state.judging))
  const [narrowing, setNarrowing] = useState(wholeDocket)
  const [answering, setAnswering] = useState(false)
  const rules = useVisit((state) => state.rules)
  const works = useVisit((state) => state.works)
  const start = useStarts()
  const planned = useAgenda()
  const all = useMemo(() => docketOf(works, rules, start), [works, rules, start])
  const groups = narrowed(all, narrowing)
  const subjects = [...new Set(all.flatMap(({ subject }) => subject ?? []))].sort()
  const questions = open.filter((finding) => finding.asks !== null && finding.subject === null)
  const workWords = total
    ? `${countWords(open) || 'conflicts to settle'}${planned ? `; ${figureWords(planned)}` : ''}`
    : 'Give the pack, sign, seal.'
  const go = useCallback(
    ({ place }: Finding) => {
      if (!place) return
      goTo(place)
      onGone?.()
    },
    [goTo, onGone]
  )
  const lineOf = (finding: Finding) => (
    <Line
      key={`${finding.rule} ${finding.subject?.id ?? ''} ${finding.subject?.name ?? ''}`}
      finding={finding}
      onGo={go}
      onGrant={setGrant}
      onAsk={setAsked}
    />
  )
  return (
    <div>
      <div className="p-4 pb-3">
        <h2 className="text-lg text-balance">
          {sealed ? 'Sealed' : `${total || 'Nothing'} between here and sign-off`}
        </h2>
        <p className="fine">{sealed ? 'Nobody changes this visit any more.' : workWords}</p>
        {isLong && (
          <p className="fine" role="status">
            What was written last is being judged …
          </p>
        )}
        {!sealed && (
          <DocketNarrow
            open={open}
            subjects={subjects}
            shown={groups.reduce((sum, group) => sum + group.findings.length, 0)}
            narrowing={narrowing}
            onNarrow={setNarrowing}
          />
        )}
        {mayWrite && questions.length > 1 && (
          <Button className="mt-2 w-full" onClick={() => setAnswering(true)}>
            Answer {questions.length} questions
          </Button>
        )}
      </div>
      <ul>
        {conflicts.map((conflict) => (
          <ConflictLine key={conflict.key} conflict={conflict} />
        ))}
        {groups.map((group) => (
          <li key={group.key}>
            {(group.findings.length > 1 || group.after !== null) && (
              <p className="fine border-t border-rule bg-sheet px-4 py-1.5">
                {group.findings.length > 1 && (
                  <b>
                    {group.subject ?? stageNames[group.stage]}: {group.findings.length} together, about {group.minutes}{' '}
                    min
                  </b>
                )}
                {group.findings.length > 1 && group.after !== null ? '; ' : ''}
                {group.after !== null && <>first {group.after}</>}
              </p>
            )}
            <ul>{group.findings.map(lineOf)}</ul>
          </li>
        ))}
        {settled.map(lineOf)}
      </ul>
      <GrantSheet grant={grant} onClose={() => setGrant(null)} />
      {asked && <OrderSheet finding={asked} onClose={() => setAsked(null)} />}
      <Sheet
        open={answering}
        onClose={() => setAnswering(false)}
        title="Questions of this visit"
        description="Each answer is written with your name and the time."
      >
        <List framed>
          {questions.map((question) => (
            <li key={question.rule} className="flex flex-wrap items-center gap-3 py-3">
              <p className="grow basis-60">
                <span className="fine">{stageNames[question.stage]}</span>
                <br />
                {question.asks}
              </p>
              <Chips
                label={question.asks!}
                value={answers[ruleKey(question.rule)]?.answer as 'yes' | undefined}
                options={[
                  { value: 'yes', label: 'Yes' },
                  { value: 'no', label: 'Not yet' }
                ]}
                onChoose={(answer) => write('rule.answered', { rule: question.rule, answer })}
              />
            </li>
          ))}
        </List>
        {questions.length === 0 && <p>All are answered.</p>}
      </Sheet>
    </div>
  )
}

/** So long something may take before it is said that it is under way, ms. */
const LONG_MS = 600

/** Whether something has been so for a while. */
function useLong(isSo: boolean): boolean {
  const [isLong, setLong] = useState(false)
  useEffect(() => {
    if (!isSo) return
    const timer = setTimeout(() => setLong(true), LONG_MS)
    return () => {
      clearTimeout(timer)
      setLong(false)
    }
  }, [isSo])
  return isLong
}

/** A line of the docket; drawn anew only where what it says is otherwise: there are many, after every entry. */
const Line = memo(function Line({
  finding,
  onGo,
  onGrant,
  onAsk
}: {
  finding: Finding
  onGo: (finding: Finding) => void
  onGrant: (grant: Grant) => void
  onAsk: (finding: Finding) => void
}) {
  const hasSay = useHasSay(finding)
  const lead = useSession((state) => state.me?.role === 'lead')
  const mayWrite = useMayWrite()
  const whyNot = useWhyNotWaive(finding)
  const heavy = finding.outcome === 'breaks' && blocks(finding)
  const title = titleOf(finding)
  const mayAcknowledge = mayWrite && finding.level === 'should' && !finding.granted
  return (
    <li className={`out-of-sight border-t border-rule ${heavy ? 'bg-inv text-oninv' : ''}`}>
      <button
        type="button"
        className="grid w-full grid-cols-[34px_1fr] gap-3 p-4 pb-2 text-left hover:underline"
        onClick={() => onGo(finding)}
      >
        <span className="pt-1">
          <Mark outcome={finding.outcome} />
        </span>
        <span>
          <span className="block font-bold">{title}</span>
          <span className={`block text-sm ${heavy ? '' : 'text-soft'}`}>
            {finding.evidence}
            {grantOrMend(finding)}
          </span>
        </span>
      </button>
      <div className="flex gap-1 pb-1 pl-[50px] text-sm empty:pb-2">
        {finding.recordedSince && mayWrite && (
          <button
            type="button"
            className="min-h-11 px-2 underline underline-offset-2"
            aria-label={`It stood there then: ${title}`}
            onClick={() => finding.recordedSince!.forEach((body) => write('thing.stood', body))}
          >
            It stood there then
          </button>
        )}
        {hasSay && mayWrite && (
          <button
            type="button"
            className="min-h-11 px-2 underline underline-offset-2"
            aria-label={`Which came first: ${title}`}
            onClick={() => onAsk(finding)}
          >
            Which came first?
          </button>
        )}
        {lead && mayWrite && blocks(finding) && whyNot === null && (
          <button
            type="button"
            className="min-h-11 px-2 underline underline-offset-2"
            aria-label={`Waive: ${title}`}
            onClick={() => onGrant({ kind: 'waive', finding })}
          >
            Waive
          </button>
        )}
        {mayAcknowledge && (
          <button
            type="button"
            className="min-h-11 px-2 underline underline-offset-2"
            aria-label={`Acknowledge: ${title}`}
            onClick={() => onGrant({ kind: 'acknowledge', finding })}
          >
            Acknowledge
          </button>
        )}
        {lead && mayWrite && finding.outcome === 'waived' && (
          <button
            type="button"
            className="min-h-11 px-2 underline underline-offset-2"
            aria-label={`Withdraw the waiver: ${title}`}
            onClick={() => onGrant({ kind: 'withdraw', finding })}
          >
            Withdraw the waiver
          </button>
        )}
      </div>
    </li>
  )
})

/** The docket as a sheet: on a phone, and by its key. */
export function DocketSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Sheet open={open} onClose={onClose} title="Docket">
      <div className="-m-4">
        <Docket onGone={onClose} />
      </div>
    </Sheet>
  )
}
