import { stageNames, stages } from '@pasado/core/record/stages'
import type { DocketGroup } from '@pasado/core/agenda/docket'
import type { Finding } from '@pasado/core/rules/finding'
import { Select } from '../../ui/Field'

/** What of the docket is shown: of one stage, about one thing, or only what was proven once. */
export interface Narrowing {
  stage: string
  about: string
  onlyLost: boolean
}
export const wholeDocket: Narrowing = { stage: '', about: '', onlyLost: false }

/** What was proven once, and is not any more. */
const lostOf = (open: readonly Finding[]) => open.filter(({ wasProven }) => wasProven)

/** The groups that are shown. */
export function narrowed(all: readonly DocketGroup[], { stage, about, onlyLost }: Narrowing): readonly DocketGroup[] {
  const lost = all.flatMap((group) => {
    const findings = lostOf(group.findings)
    return findings.length > 0 ? [{ ...group, findings }] : []
  })
  return (onlyLost && lost.length > 0 ? lost : all).filter(
    (group) =>
      (stage === '' || group.findings.some((finding) => finding.stage === stage)) &&
      (about === '' || group.subject === about)
  )
}

/** Chooses what of a long docket is shown, and tells what was proven once and is not any more. */
export function DocketNarrow({
  open,
  subjects,
  shown,
  narrowing,
  onNarrow
}: {
  open: readonly Finding[]
  subjects: readonly string[]
  /** How many lines are shown. */
  shown: number
  narrowing: Narrowing
  onNarrow: (narrowing: Narrowing) => void
}) {
  const { stage, about, onlyLost } = narrowing
  const lost = lostOf(open).length
  const isLost = onlyLost && lost > 0
  return (
    <>
      {open.length > 3 && (
        <div className="mt-2 flex gap-2">
          <Select
            className="w-0 min-w-0 grow"
            aria-label="Show of stage"
            value={stage}
            onChange={(event) => onNarrow({ ...narrowing, stage: event.target.value })}
          >
            <option value="">every stage</option>
            {stages
              .filter((candidate) => open.some((finding) => finding.stage === candidate))
              .map((choice) => (
                <option key={choice} value={choice}>
                  {stageNames[choice]}
                </option>
              ))}
          </Select>
          {subjects.length > 1 && (
            <Select
              className="w-0 min-w-0 grow"
              aria-label="Show about"
              value={about}
              onChange={(event) => onNarrow({ ...narrowing, about: event.target.value })}
            >
              <option value="">everything</option>
              {subjects.map((subject) => (
                <option key={subject} value={subject}>
                  {subject}
                </option>
              ))}
            </Select>
          )}
        </div>
      )}
      {lost > 0 && !isLost && (
        <button
          type="button"
          className="mt-1 min-h-11 text-left underline"
          onClick={() => onNarrow({ ...wholeDocket, onlyLost: true })}
        >
          {lost === 1 ? '1 was proven once, and is not any more' : `${lost} were proven once, and are not any more`}
        </button>
      )}
      {(stage !== '' || about !== '' || isLost) && (
        <p className="fine mt-1" role="status">
          {isLost ? 'Proven once, and something changed since: ' : ''}
          {shown} of {open.length} shown.{' '}
          <button type="button" className="underline" onClick={() => onNarrow(wholeDocket)}>
            Show all
          </button>
        </p>
      )}
    </>
  )
}
