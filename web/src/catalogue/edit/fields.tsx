import { textOf } from '@pasado/core/values/plain'
import { useId, useState, type ReactNode } from 'react'
import { valueAt, useEditing, type Path } from './draft'
import { Button } from '../../ui/Button'
import { Input, Select } from '../../ui/Field'
import { List } from '../../ui/List'

const samePath = (a: Path, b: Path) => a.length === b.length && a.every((part, at) => part === b[at])

/** What is wrong at a path or, where `below`, anywhere under it. */
export function useFault(path: Path, below = false): string | null {
  const { faults } = useEditing()
  const fault = faults.find((candidate) =>
    below
      ? candidate.path.length >= path.length && samePath(candidate.path.slice(0, path.length), path)
      : samePath(candidate.path, path)
  )
  return fault?.message ?? null
}

interface Common {
  path: Path
  label: string
  /** The label is read out but not shown, in a row under a head. */
  quiet?: boolean
}

function Frame({ path, label, quiet, inputId, children }: Common & { inputId: string | null; children: ReactNode }) {
  const fault = useFault(path)
  const Label = inputId ? 'label' : 'span'
  return (
    <div className="min-w-0">
      <Label className={quiet ? 'sr-only' : 'label'} {...(inputId ? { htmlFor: inputId } : {})}>
        {label}
      </Label>
      <div className={quiet ? '' : 'mt-1'}>{children}</div>
      {fault && (
        <p id={inputId ? `${inputId}-wrong` : undefined} role="alert" className="mt-1 text-sm font-bold">
          {fault}
        </p>
      )}
    </div>
  )
}

/** A line of text. Left empty, an optional one is taken away, one that may be nothing is null. */
export function TextAt({
  exact = false,
  empty = 'keep',
  list,
  ...common
}: Common & { exact?: boolean; empty?: 'keep' | 'away' | 'null'; list?: string }) {
  const { draft, set } = useEditing()
  const inputId = useId()
  const fault = useFault(common.path)
  const value = valueAt(draft, common.path)
  return (
    <Frame {...common} inputId={inputId}>
      <input
        id={inputId}
        className={`box ${exact ? 'exact' : ''}`}
        autoComplete="off"
        spellCheck={!exact}
        list={list}
        value={typeof value === 'string' ? value : ''}
        aria-invalid={fault !== null}
        aria-describedby={fault ? `${inputId}-wrong` : undefined}
        onChange={(event) => {
          const text = event.target.value
          if (text !== '' || empty === 'keep') set(common.path, text)
          else set(common.path, empty === 'null' ? null : undefined)
        }}
      />
    </Frame>
  )
}

/** A number. What is typed and is none is kept as it stands, and told. */
export function NumberAt({
  unit,
  empty = 'away',
  ...common
}: Common & { unit?: string; empty?: 'away' | 'null' | 'keep' }) {
  const { draft, set } = useEditing()
  const inputId = useId()
  const fault = useFault(common.path)
  const value = valueAt(draft, common.path)
  const [typed, setTyped] = useState('')
  const read = (text: string) => {
    if (text === '') {
      if (empty === 'null') return null
      return empty === 'away' ? undefined : ''
    }
    return /^-?\d+(?:[.,]\d+)?$/.test(text) ? Number(text.replace(',', '.')) : text
  }
  // What is typed stands as typed as long as it means what the draft holds: 1.0 on the way to 1.05.
  const shown = read(typed) === value ? typed : textOf(value)
  const change = (text: string) => {
    setTyped(text)
    set(common.path, read(text))
  }
  return (
    <Frame {...common} inputId={inputId}>
      <span className="flex items-center gap-2">
        <Input
          id={inputId}
          exact
          inputMode="decimal"
          autoComplete="off"
          value={shown}
          aria-invalid={fault !== null}
          aria-describedby={fault ? `${inputId}-wrong` : undefined}
          onChange={(event) => change(event.target.value)}
        />
        {unit && <span className="fine shrink-0">{unit}</span>}
      </span>
    </Frame>
  )
}

/** Yes or no; where `away`, no takes the field away. */
export function CheckAt({ away = false, ...common }: Common & { away?: boolean }) {
  const { draft, set } = useEditing()
  return (
    <div className="min-w-0">
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5 accent-plum"
          checked={valueAt(draft, common.path) === true}
          onChange={(event) => set(common.path, event.target.checked || (away ? undefined : false))}
        />
        <span className={common.quiet ? 'sr-only' : ''}>{common.label}</span>
      </label>
    </div>
  )
}

/** One of a list. */
export function SelectAt({
  options,
  none,
  asNumber = false,
  ...common
}: Common & { options: readonly { value: string; label: string }[]; none?: string; asNumber?: boolean }) {
  const { draft, set } = useEditing()
  const inputId = useId()
  const fault = useFault(common.path)
  const value = valueAt(draft, common.path)
  const known = value === undefined || value === null || options.some((option) => option.value === textOf(value))
  return (
    <Frame {...common} inputId={inputId}>
      <Select
        id={inputId}

        value={textOf(value)}
        aria-invalid={fault !== null}
        onChange={({ target: { value: chosen } }) => {
          if (chosen === '') set(common.path, undefined)
          else set(common.path, asNumber ? Number(chosen) : chosen)
        }}
      >
        {(none !== undefined || value === undefined) && <option value="">{none ?? 'choose'}</option>}
        {!known && <option value={textOf(value)}>{textOf(value)}</option>}
        {options.map((item) => (
          <option key={item.value} value={item.value}>
            {item.label}
          </option>
        ))}
      </Select>
    </Frame>
  )
}

/** Several of a few, in the order they are listed. */
export function SeveralAt({
  options,
  ...common
}: Common & { options: readonly { value: string | number; label: string }[] }) {
  const { draft, set } = useEditing()
  const chosen = (valueAt(draft, common.path) as (string | number)[] | undefined) ?? []
  return (
    <Frame {...common} inputId={null}>
      <div role="group" aria-label={common.label} className="flex flex-wrap gap-1.5">
        {options.map((option) => {
          const on = chosen.includes(option.value)
          return (
            <button
              key={option.value}
              type="button"
              className="chip"
              aria-pressed={on}
              data-state={on ? 'on' : 'off'}
              onClick={() =>
                set(
                  common.path,
                  options
                    .map(({ value }) => value)
                    .filter((value) => (value === option.value ? !on : chosen.includes(value)))
                )
              }
            >
              {option.label}
            </button>
          )
        })}
      </div>
    </Frame>
  )
}

/** Several words, divided by commas. */
export function WordsAt(common: Common) {
  const { draft, set } = useEditing()
  const inputId = useId()
  const fault = useFault(common.path, true)
  const value = (valueAt(draft, common.path) as string[] | undefined) ?? []
  const [typed, setTyped] = useState('')
  const read = (text: string) =>
    text
      .split(',')
      .map((word) => word.trim())
      .filter(Boolean)
  const shown = read(typed).join() === value.join() ? typed : value.join(', ')
  return (
    <Frame {...common} inputId={inputId}>
      <Input
        id={inputId}
        exact
        autoComplete="off"
        value={shown}
        aria-invalid={fault !== null}
        onChange={(event) => {
          setTyped(event.target.value)
          set(common.path, read(event.target.value))
        }}
      />
    </Frame>
  )
}

/** Rows of one kind, each with its fields; one can be added at the end, taken out, and moved up. */
export function Rows<T>({
  path,
  label,
  fresh,
  columns,
  children
}: {
  path: Path
  label: string
  /** A new row. */
  fresh: (count: number) => T
  /** The grid of one row, the buttons at its end not counted; on a phone its fields stand one below another. */
  columns?: string
  children: (at: Path, row: T) => ReactNode
}) {
  const { draft, set } = useEditing()
  const rows = (valueAt(draft, path) as T[] | undefined) ?? []
  const name = label.toLowerCase()
  return (
    <section aria-label={label}>
      <List framed>
        {rows.map((row, at) => (
          <li
            key={at}
            aria-label={`${label} ${at + 1}`}
            className="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-2 py-2"
          >
            <div
              className={
                columns ? 'grid grid-cols-[minmax(0,1fr)] gap-2 md:[grid-template-columns:var(--row)]' : 'min-w-0'
              }
              style={columns ? ({ '--row': columns } as React.CSSProperties) : undefined}
            >
              {children([...path, at], row)}
            </div>
            <span className="flex">
              <button
                type="button"
                className="min-h-11 min-w-9"
                aria-label={`Move up: ${name} ${at + 1}`}
                disabled={at === 0}
                onClick={() =>
                  set(
                    path,
                    rows.map((row, index) => {
                      if (index === at - 1) return rows[at]
                      return index === at ? rows[at - 1] : row
                    })
                  )
                }
              >
                {at === 0 ? '' : '↑'}
              </button>
              <button
                type="button"
                className="min-h-11 min-w-9 text-lg"
                aria-label={`Take out: ${name} ${at + 1}`}
                onClick={() =>
                  set(
                    path,
                    rows.filter((_, index) => index !== at)
                  )
                }
              >
                ×
              </button>
            </span>
          </li>
        ))}
      </List>
      <Button className="mt-2" onClick={() => set(path, [...rows, fresh(rows.length)])}>
        Add: {name}
      </Button>
    </section>
  )
}
