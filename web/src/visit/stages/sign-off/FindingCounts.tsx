import { useState } from 'react'
import { titleOf } from '@pasado/core/agenda/title'
import { stageNames, stages } from '@pasado/core/record/stages'
import type { Finding } from '@pasado/core/rules/finding'
import { countOutcomes } from '@pasado/core/rules/weigh'
import type { Outcome } from '@pasado/core/rules/rule'
import { Mark } from '../../../ui/Mark'
import { Sheet } from '../../../ui/Sheet'
import { RestsOn } from '../../frame/RestsOn'

const outcomes = ['breaks', 'unproven', 'waived', 'holds', 'not-here'] as const
const words: Record<Outcome, string> = {
  breaks: 'breaks',
  unproven: 'unproven',
  waived: 'waived',
  holds: 'holds',
  'not-here': 'not here'
}

const titles: Record<Outcome, string> = {
  breaks: 'What breaks',
  unproven: 'What is unproven',
  waived: 'What is waived',
  holds: 'What holds',
  'not-here': 'What is not here'
}

/** How many findings of each outcome there are; each count opens what it counts, with what that rests on. */
export function FindingCounts({ findings }: { findings: readonly Finding[] }) {
  const [shown, setShown] = useState<Outcome | null>(null)
  const counts = countOutcomes(findings)
  return (
    <>
      <ul className="mt-3 flex flex-wrap gap-x-6 gap-y-2" aria-label="Findings">
        {outcomes.map((outcome) => (
          <li key={outcome}>
            <button
              type="button"
              className="flex min-h-11 items-center gap-2 enabled:underline enabled:underline-offset-2"
              aria-label={`${counts[outcome]} ${words[outcome]}`}
              disabled={counts[outcome] === 0}
              onClick={() => setShown(outcome)}
            >
              <Mark outcome={outcome} />
              <span>
                <b>{counts[outcome]}</b> {words[outcome]}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <Sheet
        open={shown !== null}
        onClose={() => setShown(null)}
        title={shown === null ? '' : titles[shown]}
        description="Each with what was seen, and the lines of the logbook that it rests on."
        wide
      >
        {shown !== null && <Listed findings={findings.filter(({ outcome }) => outcome === shown)} />}
      </Sheet>
    </>
  )
}

function Listed({ findings }: { findings: readonly Finding[] }) {
  return stages.map((stage) => {
    const here = findings.filter((finding) => finding.stage === stage)
    return (
      here.length > 0 && (
        <section key={stage} aria-label={stageNames[stage]} className="mb-4">
          <h3 className="text-base text-soft">{stageNames[stage]}</h3>
          <ul>
            {here.map((finding) => (
              <li
                key={`${finding.rule} ${finding.subject?.id ?? ''} ${finding.subject?.name ?? ''}`}
                className="border-t border-rule pt-2"
              >
                <b>{titleOf(finding)}</b>
                <p className="text-sm">{finding.evidence}</p>
                <RestsOn finding={finding} />
              </li>
            ))}
          </ul>
        </section>
      )
    )
  })
}
