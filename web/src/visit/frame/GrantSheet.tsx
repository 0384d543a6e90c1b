import { Tick } from '../../ui/Tick'
import { format } from 'date-fns'
import { useState } from 'react'
import type { Finding } from '@pasado/core/rules/finding'
import { blocks } from '@pasado/core/rules/weigh'
import { ruleKey, type VisitRecord } from '@pasado/core/record/record'
import { listed } from '@pasado/core/values/list'
import { useDraft } from '../../app/draft'
import { Sheet } from '../../ui/Sheet'
import { useVisit } from '../session/visit-state'
import { write } from '../session/write'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { TextArea, Field, Input } from '../../ui/Field'

const today = () => format(new Date(), 'yyyy-MM-dd')

/** What is about to be granted for a finding. */
export interface Grant {
  kind: 'waive' | 'acknowledge' | 'withdraw'
  finding: Finding
}

/** What the same rule has against other things, and may be acknowledged with it. */
const alike = ({ rule, subject }: Finding, findings: readonly Finding[]): Finding[] =>
  findings.filter(
    (other) =>
      other.rule === rule &&
      other.level === 'should' &&
      blocks(other) &&
      other.subject !== null &&
      subject !== null &&
      other.subject.id !== subject.id
  )

/** What a waiver or an acknowledgement names: the rule, the thing, and where the rule says several of it, which of them. */
function aboutOf({ rule, subject }: Finding, findings: readonly Finding[]) {
  if (!subject) return { rule }
  const isOneOfSeveral = findings.filter((other) => other.rule === rule && other.subject?.id === subject.id).length > 1
  return { rule, subject: subject.id, ...(isOneOfSeveral ? { named: subject.name } : {}) }
}

/** What the waiver that covers a finding names: that one is withdrawn. */
function grantedAs({ rule, subject }: Finding, { waivers }: VisitRecord) {
  if (!subject) return { rule }
  const { id, name } = subject
  if (Object.hasOwn(waivers, ruleKey(rule, id, name))) return { rule, subject: id, named: name }
  return Object.hasOwn(waivers, ruleKey(rule, id)) ? { rule, subject: id } : { rule }
}

/** Asks for the reason of a waiver or an acknowledgement. */
export function GrantSheet({ grant, onClose }: { grant: Grant | null; onClose: () => void }) {
  const [reason, setReason] = useDraft(
    `reason ${grant?.kind ?? ''} ${grant?.finding.rule ?? ''} ${grant?.finding.subject?.id ?? ''} ${grant?.finding.subject?.name ?? ''}`,
    ''
  )
  const [until, setUntil] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const [withOthers, setWithOthers] = useState(false)
  const findings = useVisit((state) => state.findings)
  const record = useVisit((state) => state.record)
  if (!grant) return null
  const { kind, finding } = grant
  const about = aboutOf(finding, findings)
  const withdrawn = grantedAs(finding, record)
  const others = kind === 'acknowledge' ? alike(finding, findings) : []
  const close = () => {
    setWithOthers(false)
    setReason('')
    setUntil('')
    setProblem(null)
    onClose()
  }
  const submit = (event: React.FormEvent) => {
    event.preventDefault()
    if (kind !== 'withdraw' && reason.trim().length < 4) {
      setProblem('A reason is missing: say why in a few words.')
      return
    }
    if (until && until < today()) {
      setProblem('Put right by is a day that has passed: choose today or a later one.')
      return
    }
    if (kind === 'waive') write('waiver.granted', { ...about, reason: reason.trim(), ...(until ? { until } : {}) })
    if (kind === 'acknowledge')
      for (const each of withOthers ? [finding, ...others] : [finding])
        write('rule.acknowledged', { ...aboutOf(each, findings), reason: reason.trim() })
    if (kind === 'withdraw') write('waiver.withdrawn', withdrawn)
    close()
  }
  const title = { waive: 'Waive this rule', acknowledge: 'Acknowledge this', withdraw: 'Withdraw the waiver' }[kind]
  return (
    <Sheet open onClose={close} title={title} description={finding.says}>
      <form onSubmit={submit} className="flex flex-col gap-4">
        <p>
          {finding.subject && <b>{finding.subject.name}: </b>}
          {finding.evidence}
        </p>
        {kind !== 'withdraw' && (
          <div>
            <label className="label" htmlFor="grant-reason">
              Reason
            </label>
            <TextArea
              id="grant-reason"
              className="mt-1 min-h-24"
              maxLength={600}
              value={reason}
              aria-invalid={problem !== null}
              aria-describedby={problem ? 'grant-wrong' : undefined}
              onChange={(event) => {
                setReason(event.target.value.replace(/\n/g, ' '))
                setProblem(null)
              }}
            />
            <Problem id="grant-wrong" message={problem} className="mt-1" />
          </div>
        )}
        {others.length > 0 && (
          <Tick checked={withOthers} onTick={(checked) => setWithOthers(checked)}>
            for {listed(others.map(({ subject }) => subject!.name))} as well
          </Tick>
        )}
        {kind === 'waive' && (
          <Field label="Put right by">
            <Input
              type="date"

              min={today()}
              value={until}
              onChange={(event) => {
                setUntil(event.target.value)
                setProblem(null)
              }}
            />
            <span className="fine block font-normal">Left empty: for good.</span>
          </Field>
        )}
        <Button type="submit" kind="main">
          {title}
        </Button>
      </form>
    </Sheet>
  )
}
