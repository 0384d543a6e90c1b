import { useState } from 'react'
import { blocks, heaviestFirst, type Finding } from '@pasado/core/standard/evaluate'
import { useSession } from '../app/session'
import { Mark } from '../ui/Mark'
import { Sheet } from '../ui/Sheet'
import { useMayWrite } from './facts'
import { useGoTo } from './place'
import { useVisit } from './store'
import { GrantSheet, type Grant } from './GrantSheet'

/** What stands between the visit and sign-off, in one line. */
function countWords(open: readonly Finding[]): string {
  const broken = open.filter(({ outcome }) => outcome === 'breaks').length
  const parts = [broken ? `${broken} ${broken === 1 ? 'breaks' : 'break'}` : '', open.length - broken ? `${open.length - broken} unproven` : '']
  return parts.filter(Boolean).join(' · ')
}

/** The docket: heaviest first, each line going straight to the field that mends it. */
export function Docket({ onGone }: { onGone?: () => void }) {
  const findings = useVisit((state) => state.findings)
  const conflicts = useVisit((state) => state.record.conflicts)
  const sealed = useVisit((state) => state.record.seal !== null)
  const [grant, setGrant] = useState<Grant | null>(null)
  const goTo = useGoTo()
  const ordered = heaviestFirst(findings)
  const open = ordered.filter(blocks)
  const settled = ordered.filter((one) => one.outcome === 'waived' || (one.granted?.kind === 'acknowledged'))
  const total = open.length + conflicts.length
  return (
    <div>
      <div className="p-4 pb-3">
        <h2 className="text-lg text-balance">{sealed ? 'Sealed' : total ? `${total} between here and sign-off` : 'Nothing between here and sign-off'}</h2>
        <p className="fine">{sealed ? 'Nobody changes this visit any more.' : total ? countWords(open) || 'conflicts to settle' : 'Give the pack, sign, seal.'}</p>
      </div>
      <ul>
        {conflicts.map((conflict) => (
          <li key={`${conflict.thing}${conflict.id}${conflict.field}`} className="border-t border-rule bg-inv text-oninv">
            <button type="button" className="w-full p-4 text-left" onClick={() => { goTo({ stage: conflict.thing === 'brief' ? 'brief' : conflict.thing === 'unit' ? 'kit' : 'configure', kind: conflict.thing as 'unit', id: conflict.id, field: conflict.field }); onGone?.() }}>
              <span className="block font-bold">Two people set {conflict.field}</span>
              <span className="text-sm">{conflict.earlier.by.name} and {conflict.later.by.name}. Say which is right.</span>
            </button>
          </li>
        ))}
        {open.map((one) => <Line key={`${one.rule}${one.subject?.id ?? ''}`} finding={one} onGo={() => { if (one.place) { goTo(one.place); onGone?.() } }} onGrant={setGrant} />)}
        {settled.map((one) => <Line key={`${one.rule}${one.subject?.id ?? ''}`} finding={one} onGo={() => { if (one.place) { goTo(one.place); onGone?.() } }} onGrant={setGrant} />)}
      </ul>
      <GrantSheet grant={grant} onClose={() => setGrant(null)} />
    </div>
  )
}

function Line({ finding, onGo, onGrant }: { finding: Finding; onGo: () => void; onGrant: (grant: Grant) => void }) {
  const lead = useSession((state) => state.me?.role === 'lead')
  const mayWrite = useMayWrite()
  const heavy = finding.outcome === 'breaks' && blocks(finding)
  const title = finding.subject ? `${finding.subject.name}: ${finding.name.toLowerCase()}` : finding.name
  const mayAcknowledge = mayWrite && finding.level === 'should' && !finding.granted
  return (
    <li className={`border-t border-rule ${heavy ? 'bg-inv text-oninv' : ''}`}>
      <button type="button" className="grid w-full grid-cols-[34px_1fr] gap-3 p-4 pb-2 text-left hover:underline" onClick={onGo}>
        <span className="pt-1"><Mark outcome={finding.outcome} /></span>
        <span>
          <span className="block font-bold">{title}</span>
          <span className={`block text-sm ${heavy ? '' : 'text-soft'}`}>{finding.evidence}{finding.granted ? ` ${finding.granted.kind === 'waived' ? 'Waived' : 'Acknowledged'} by ${finding.granted.by}: ${finding.granted.reason}` : finding.mend ? ` ${finding.mend}` : ''}</span>
        </span>
      </button>
      <div className="flex gap-1 pb-1 pl-[50px] text-sm empty:pb-2">
        {lead && mayWrite && blocks(finding) && <button type="button" className="min-h-11 px-2 underline underline-offset-2" aria-label={`Waive: ${title}`} onClick={() => onGrant({ kind: 'waive', finding })}>Waive</button>}
        {mayAcknowledge && <button type="button" className="min-h-11 px-2 underline underline-offset-2" aria-label={`Acknowledge: ${title}`} onClick={() => onGrant({ kind: 'acknowledge', finding })}>Acknowledge</button>}
        {lead && mayWrite && finding.outcome === 'waived' && <button type="button" className="min-h-11 px-2 underline underline-offset-2" aria-label={`Withdraw the waiver: ${title}`} onClick={() => onGrant({ kind: 'withdraw', finding })}>Withdraw the waiver</button>}
      </div>
    </li>
  )
}

/** The docket as a sheet: on a phone, and by its key. */
export function DocketSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return <Sheet open={open} onClose={onClose} title="Docket"><div className="-m-4"><Docket onGone={onClose} /></div></Sheet>
}
