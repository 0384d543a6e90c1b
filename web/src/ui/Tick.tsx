import type { ReactNode } from 'react'

/** Something that is so or is not: a box to tick, with what it says beside it. */
export function Tick({
  checked,
  disabled = false,
  className = '',
  onTick,
  children
}: {
  checked: boolean
  disabled?: boolean
  className?: string
  onTick: (checked: boolean) => void
  children: ReactNode
}) {
  return (
    <label className={`flex min-h-11 items-center gap-3 ${className}`.trim()}>
      <input
        type="checkbox"
        className="size-5 shrink-0 accent-plum"
        checked={checked}
        disabled={disabled}
        onChange={(event) => onTick(event.target.checked)}
      />
      {children}
    </label>
  )
}
