import type { ReactNode } from 'react'
import { Select } from '../../../../ui/Field'

/** A channel or a width, chosen from those there are. */
export function FigureSelect({
  label,
  what,
  unit = '',
  value,
  from,
  disabled,
  className,
  onChoose,
  children
}: {
  label: string
  /** What is chosen, where nothing is yet. */
  what: string
  unit?: string
  value: number | string | undefined
  from: readonly number[]
  disabled: boolean
  className?: string
  onChoose: (value: string) => void
  /** Further options, before the figures. */
  children?: ReactNode
}) {
  return (
    <Select
      aria-label={label}
      disabled={disabled}
      value={value ?? ''}
      onChange={(event) => onChoose(event.target.value)}
      {...(className === undefined ? {} : { className })}
    >
      <option value="" disabled>
        {what}
      </option>
      {children}
      {from.map((figure) => (
        <option key={figure} value={figure}>
          {figure}
          {unit}
        </option>
      ))}
    </Select>
  )
}
