import type { Outcome } from '@pasado/core/rules/rule'

/** What each outcome is called. */
export const outcomeWords: Record<Outcome, string> = {
  holds: 'holds',
  breaks: 'breaks',
  unproven: 'unproven',
  waived: 'waived',
  'not-here': 'not here'
}

/** How something stands that is good or not; not known (undefined) is unproven. */
export function outcomeOf(good: boolean | undefined): Outcome {
  if (good === undefined) return 'unproven'
  return good ? 'holds' : 'breaks'
}

const line = { stroke: 'currentColor', fill: 'none', strokeLinecap: 'round', strokeLinejoin: 'round' } as const

const shapes: Record<Outcome, React.ReactNode> = {
  holds: (
    <>
      <circle cx="5" cy="8" r="3.1" fill="currentColor" />
      <circle cx="29" cy="8" r="3.1" fill="currentColor" />
      <path d="M5 8H29" {...line} strokeWidth="2.6" />
    </>
  ),
  breaks: (
    <>
      <path d="M5 4.6H14.2L11.6 11.4" {...line} strokeWidth="3.4" />
      <path d="M29 11.4H19.8L22.4 4.6" {...line} strokeWidth="3.4" />
      <circle cx="5" cy="4.6" r="3.1" fill="currentColor" />
      <circle cx="29" cy="11.4" r="3.1" fill="currentColor" />
    </>
  ),
  unproven: (
    <>
      <circle cx="5" cy="8" r="3.1" fill="none" stroke="currentColor" strokeWidth="1.8" />
      <circle cx="29" cy="8" r="3.1" fill="none" stroke="currentColor" strokeWidth="1.8" />
      <path d="M10.6 8H24" {...line} strokeWidth="2.4" strokeDasharray="0.1 4.4" />
    </>
  ),
  waived: (
    <>
      <circle cx="5" cy="11" r="3.1" fill="currentColor" />
      <circle cx="29" cy="11" r="3.1" fill="currentColor" />
      <path d="M5 11H11M23 11H29" {...line} strokeWidth="2.6" />
      <path d="M11 11C11 1.5 23 1.5 23 11" {...line} strokeWidth="2" />
    </>
  ),
  'not-here': (
    <>
      <circle cx="5" cy="8" r="3.1" fill="none" stroke="currentColor" strokeWidth="1.8" />
      <circle cx="29" cy="8" r="3.1" fill="none" stroke="currentColor" strokeWidth="1.8" />
    </>
  )
}

/** An outcome as a short piece of cable, with its word for those who do not see it. */
export function Mark({ outcome, width = 34 }: { outcome: Outcome; width?: number }) {
  return (
    <svg
      role="img"
      aria-label={outcomeWords[outcome]}
      viewBox="0 0 34 16"
      width={width}
      height={(width * 16) / 34}
      className="shrink-0"
    >
      {shapes[outcome]}
    </svg>
  )
}
