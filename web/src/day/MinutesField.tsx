import { useState } from 'react'

const MOST_MIN = 600

/** How far it is, in whole minutes: taken over with Enter or on leaving; empty forgets it. */
export function MinutesField({
  label,
  minutes,
  onSet,
  narrow = false
}: {
  label: string
  minutes: number | null
  onSet: (minutes: number | null) => void
  narrow?: boolean
}) {
  const [text, setText] = useState(minutes === null ? '' : String(minutes))
  const [wrong, setWrong] = useState(false)
  const done = () => {
    const typed = text.trim() === '' ? null : Number(text)
    const fits = typed === null || (Number.isInteger(typed) && typed >= 0 && typed <= MOST_MIN)
    setWrong(!fits)
    if (fits && typed !== minutes) onSet(typed)
  }
  return (
    <>
      <input
        className={`box exact text-right ${narrow ? 'w-20' : ''}`}
        inputMode="numeric"
        aria-label={label}
        aria-invalid={wrong}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={done}
        onKeyDown={(event) => {
          if (event.key === 'Enter') done()
        }}
      />
      {wrong && (
        <b role="alert" className="text-sm">
          Whole minutes, at most {MOST_MIN}.
        </b>
      )}
    </>
  )
}
