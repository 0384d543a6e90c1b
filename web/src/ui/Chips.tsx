import { RadioGroup } from 'radix-ui'
import type { ReactNode } from 'react'

/** One of a few, each a chip to press. */
export function Chips<T extends string>({
  label,
  value,
  options,
  onChoose,
  disabled = false,
  id,
  describedBy
}: {
  label: string
  value: T | undefined
  options: readonly { value: T; label: ReactNode; name?: string }[]
  onChoose: (value: T) => void
  disabled?: boolean
  id?: string
  describedBy?: string
}) {
  return (
    <RadioGroup.Root
      aria-label={label}
      id={id}
      aria-describedby={describedBy}
      className="flex flex-wrap gap-2"
      value={value ?? ''}
      disabled={disabled}
      onValueChange={(chosen) => onChoose(chosen as T)}
    >
      {options.map((option) => (
        <RadioGroup.Item
          key={option.value}
          value={option.value}
          className="chip"
          {...(option.name ? { 'aria-label': option.name } : {})}
        >
          {option.label}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  )
}
