import { useId, type ReactNode } from 'react'
import { Problem } from '../ui/Problem'
import { Input, Select } from '../ui/Field'

/** A field for a number with its unit; what is wrong with it stands under it. */
export function NumberBox({
  label,
  unit,
  value,
  onChange,
  problem
}: {
  label: string
  unit: string
  value: string
  onChange: (typed: string) => void
  problem?: string | null | undefined
}) {
  const id = useId()
  return (
    <div>
      <label className="label" htmlFor={id}>
        {label}
        {unit && `, ${unit}`}
      </label>
      <Input
        id={id}
        exact
        className="mt-1"
        inputMode="decimal"
        autoComplete="off"
        value={value}
        aria-invalid={Boolean(problem)}
        aria-describedby={problem ? `${id}w` : undefined}
        onChange={(event) => onChange(event.target.value)}
      />
      <Problem id={`${id}w`} message={problem && `${label} ${problem}`} className="mt-1" />
    </div>
  )
}

/** One of a longer list. */
export function SelectBox<T extends string>({
  label,
  value,
  options,
  onChange
}: {
  label: string
  value: T
  options: readonly { value: T; label: string }[]
  onChange: (value: T) => void
}) {
  const id = useId()
  return (
    <div>
      <label className="label" htmlFor={id}>
        {label}
      </label>
      <Select id={id} className="mt-1" value={value} onChange={(event) => onChange(event.target.value as T)}>
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </Select>
    </div>
  )
}

/** A calculation: what goes in, what comes out, and where it is from. */
export function BenchPage({
  title,
  inputs,
  result,
  source,
  children
}: {
  title: string
  inputs: ReactNode
  result: ReactNode
  source: string
  children?: ReactNode
}) {
  return (
    <article className="paper p-4 lg:p-5">
      <h2 className="text-xl">{title}</h2>
      <div className="mt-3 grid gap-5 md:grid-cols-[16rem_minmax(0,1fr)]">
        <form className="flex flex-col gap-3" aria-label="What goes in" onSubmit={(event) => event.preventDefault()}>
          {inputs}
        </form>
        <div>
          <output className="block" aria-label="What comes out">
            {result}
          </output>
          {children}
        </div>
      </div>
      <p className="fine mt-4 border-t border-rule pt-2">{source}</p>
    </article>
  )
}

/** The figure of a result, large, with its unit. */
export function BigFigure({ value, unit, label }: { value: string; unit: string; label?: ReactNode }) {
  return (
    <p>
      <b className="exact text-4xl">{value}</b> <span className="text-xl">{unit}</span>
      {label && <span className="block">{label}</span>}
    </p>
  )
}
