import { useEffect, useRef } from 'react'
import { Link } from 'react-router'
import { stageNames, stages, type Stage } from '@pasado/core/record/stages'
import type { Finding } from '@pasado/core/rules/finding'
import { blocks, stageOutcome } from '@pasado/core/rules/weigh'
import type { Outcome } from '@pasado/core/rules/rule'
import { useVisit } from '../session/visit-state'

/** What is still open at a stage, in words. */
function stageWords(stage: Stage, findings: readonly Finding[], sealed: boolean): string {
  if (stage === 'signoff') return sealed ? 'sealed' : 'to sign'
  const here = findings.filter((finding) => finding.stage === stage)
  const count = (outcome: Outcome) => here.filter((finding) => finding.outcome === outcome).length
  const broken = here.filter((finding) => finding.outcome === 'breaks' && blocks(finding)).length
  if (broken) return `${broken} ${broken === 1 ? 'breaks' : 'break'}`
  if (count('unproven')) return `${count('unproven')} to prove`
  const waived = count('waived')
  if (count('holds') + waived === 0) return 'nothing here'
  return `${count('holds')} hold${waived ? ` · ${waived} waived` : ''}`
}

/** How a stage stands; sign-off holds once the visit is sealed. */
function outcomeAt(stage: Stage, findings: readonly Finding[], sealed: boolean): Outcome {
  if (stage !== 'signoff') return stageOutcome(stage, findings)
  return sealed ? 'holds' : 'unproven'
}

const numberHere = 'size-6 border-plum bg-plum text-onplum outline-2 outline-plumwash lg:outline-4'
const numberElsewhere = (settled: boolean) =>
  settled ? 'size-5 border-ink bg-ink text-sheet' : 'size-5 border-dotted border-edge bg-sheet text-soft'

/** The stretch of cable from one stop to the next, drawn as the stage before it stands. */
function Stretch({ outcome }: { outcome: Outcome }) {
  const common = {
    stroke: 'currentColor',
    fill: 'none',
    strokeLinecap: 'round',
    strokeLinejoin: 'round',
    vectorEffect: 'non-scaling-stroke'
  } as const
  const thick = '[stroke-width:2.4] lg:[stroke-width:3.5]'
  const shape = {
    holds: <path d="M0 12H100" {...common} className={thick} />,
    breaks: (
      <>
        <path d="M0 5H43L36 16" {...common} className={thick} />
        <path d="M100 19H57L64 8" {...common} className={thick} />
      </>
    ),
    unproven: <path d="M2 12H100" {...common} className={thick} strokeDasharray="0.1 7" />,
    waived: <path d="M0 12H31C31 -6 69 -6 69 12H100" {...common} className={thick} />,
    'not-here': <path d="M2 12H100" {...common} strokeWidth="1.5" strokeDasharray="0.1 9" />
  }[outcome]
  return (
    <svg
      viewBox="0 0 100 24"
      preserveAspectRatio="none"
      className={`h-6 w-full overflow-visible ${outcome === 'not-here' || outcome === 'unproven' ? 'text-edge' : 'text-ink'}`}
      aria-hidden
    >
      {shape}
    </svg>
  )
}

/** The visit as one cable from the street to the last room, a stop for each stage: the way through it, and how far it is. */
export function Strand({ visit, here }: { visit: string; here: Stage }) {
  const findings = useVisit((state) => state.findings)
  const sealed = useVisit((state) => state.record.seal !== null)
  const current = useRef<HTMLAnchorElement>(null)
  useEffect(() => {
    // Once the stage is drawn: the page is not laid out twice.
    const frame = requestAnimationFrame(() => setTimeout(() => current.current?.scrollIntoView?.({ block: 'nearest' })))
    return () => cancelAnimationFrame(frame)
  }, [here])
  return (
    <nav aria-label="Strand" className="border-b border-rule bg-sheet">
      <ol className="grid grid-cols-9 px-1 lg:px-4">
        {stages.map((stage, index) => {
          const outcome = outcomeAt(stage, findings, sealed)
          const words = stageWords(stage, findings, sealed)
          const isHere = stage === here
          const settled = outcome === 'holds' || outcome === 'waived' || outcome === 'breaks'
          return (
            <li key={stage} className="relative">
              {index > 0 && (
                <span className="pointer-events-none absolute right-1/2 top-[10px] w-full px-[12px] lg:top-[37px] lg:px-[18px]">
                  <Stretch outcome={stageOutcome(stages[index - 1]!, findings)} />
                </span>
              )}
              <Link
                ref={isHere ? current : null}
                to={`/visit/${visit}/${stage}`}
                aria-current={isHere ? 'step' : undefined}
                aria-label={`${index + 1} ${stageNames[stage]}: ${words}`}
                className="relative flex min-h-11 flex-col items-center justify-center py-1 text-center lg:py-2.5"
              >
                <span className={`hidden text-sm lg:block ${isHere || settled ? 'font-bold' : 'text-soft'}`}>
                  {stageNames[stage]}
                </span>
                <span
                  className={`grid place-items-center rounded-full border-2 font-bold lg:my-1.5 ${isHere ? numberHere : numberElsewhere(settled)} text-xs lg:size-7 lg:text-sm`}
                >
                  {index + 1}
                </span>
                <span className="fine hidden lg:block">{words}</span>
              </Link>
            </li>
          )
        })}
      </ol>
    </nav>
  )
}
