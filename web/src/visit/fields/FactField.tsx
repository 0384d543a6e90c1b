import { textOf } from '@pasado/core/values/plain'
import { useEffect, useId, useRef, useState, type ReactNode } from 'react'
import type { ThingKind } from '@pasado/core/record/facts'
import type { Unsettled } from '@pasado/core/history/conflicts'
import type { FieldMeta } from '@pasado/core/record/attribution'
import { Chips } from '../../ui/Chips'
import { KeepOne } from './KeepOne'
import { useFact } from '../session/facts'
import { placeKey } from '../session/place'
import type { Look } from '../../outbox/outbox'
import { takeLook } from '../session/record-now'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { Select } from '../../ui/Field'

interface Common {
  kind: ThingKind
  id: string
  field: string
  label: string
  hint?: ReactNode
}

const originWords: Record<FieldMeta['origin'], string> = {
  typed: 'typed',
  label: 'from the label',
  catalogue: 'from the catalogue',
  calculated: 'calculated',
  measured: 'measured'
}

function Frame({
  common,
  inputId,
  meta,
  conflict,
  problem,
  children
}: {
  common: Common
  inputId: string | null
  meta: FieldMeta | undefined
  conflict: Unsettled | undefined
  problem: string | null
  children: ReactNode
}) {
  const { kind, id, field, label, hint } = common
  const Label = inputId ? 'label' : 'span'
  return (
    <div data-place={placeKey({ kind, id, field })}>
      <div className="flex items-baseline justify-between gap-2">
        <Label className="label" {...(inputId ? { htmlFor: inputId } : {})}>
          {label}
        </Label>
        {meta && meta.origin !== 'typed' && <span className="fine">{originWords[meta.origin]}</span>}
      </div>
      <div className="mt-1">{children}</div>
      <Problem id={`${inputId ?? field}-wrong`} message={problem && `${label} ${problem}`} className="mt-1" />
      {hint && !problem && <div className="fine mt-1">{hint}</div>}
      {conflict && <ConflictNote conflict={conflict} label={label} />}
    </div>
  )
}

function valueOf(value: unknown): string {
  if (value === null) return 'nothing'
  return Array.isArray(value) ? value.join(', ') : textOf(value)
}

/** Two people set the same field without having seen each other: the person here decides. */
function ConflictNote({ conflict, label }: { conflict: Unsettled; label: string }) {
  return (
    <div role="group" aria-label={`Conflict: ${label}`} className="mt-2 bg-inv p-3 text-oninv">
      <p className="font-bold">Two people set this</p>
      <p className="text-sm">
        {conflict.values.map(({ seq, by, value }) => (
          <span key={seq}>
            {by.name} set <span className="exact">{valueOf(value)}</span>.{' '}
          </span>
        ))}
        None had seen the other’s. Which is right?
      </p>
      <KeepOne conflict={conflict} valueOf={valueOf} />
    </div>
  )
}

/** A line of text. Checked while it is typed, written when it is left; what is not acceptable stays as typed. */
export function TextFact({
  exact = false,
  unit,
  suggest,
  type = 'text',
  ...common
}: Common & {
  exact?: boolean
  unit?: string
  type?: 'text' | 'number'
  suggest?: (typed: string) => { label: string; value: string } | null
}) {
  const { value, meta, conflict, mayWrite, set } = useFact(common.kind, common.id, common.field)
  const kept = textOf(value)
  const [typed, setTyped] = useState(kept)
  const [problem, setProblem] = useState<string | null>(null)
  const inputId = useId()
  // What had been seen when the field was gone to: who changes it meanwhile is not overwritten unseen.
  const look = useRef<Look | undefined>(undefined)
  const put = (value: unknown) => {
    const problem = set(value, look.current)
    look.current = takeLook()
    return problem
  }
  useEffect(() => {
    setTyped(kept)
    setProblem(null)
  }, [kept])
  const leave = (text: string) => {
    const said = text.trim() === '' ? '' : text
    if (said === kept) {
      setTyped(kept)
      setProblem(null)
      return
    }
    if (said === '') setProblem(put(null))
    else setProblem(type === 'number' ? setNumber(said, put) : put(said))
  }
  const better = suggest?.(typed) ?? null
  return (
    <Frame common={common} inputId={inputId} meta={meta} conflict={conflict} problem={problem}>
      <span className="flex items-center gap-2">
        <input
          id={inputId}
          className={`box ${exact ? 'exact' : ''} ${unit ? 'max-w-36' : ''}`}
          value={typed}
          disabled={!mayWrite}
          inputMode={type === 'number' ? 'decimal' : 'text'}
          spellCheck={!exact}
          autoCapitalize={exact ? 'none' : undefined}
          autoComplete="off"
          aria-invalid={problem !== null}
          aria-describedby={problem ? `${inputId}-wrong` : undefined}
          onFocus={() => {
            look.current = takeLook()
          }}
          onChange={(event) => {
            setTyped(event.target.value)
            setProblem(null)
          }}
          onBlur={(event) => leave(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') leave(event.currentTarget.value)
          }}
        />
        {unit && <span className="fine shrink-0">{unit}</span>}
      </span>
      {better && mayWrite && (
        <Button
          className="mt-2"
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => {
            setTyped(better.value)
            setProblem(set(better.value))
          }}
        >
          {better.label}
        </Button>
      )}
    </Frame>
  )
}

function setNumber(text: string, set: (value: unknown) => string | null): string | null {
  const number = Number(text.trim().replace(',', '.'))
  return Number.isFinite(number) ? set(number) : 'must be a number'
}

/** One of a few. */
export function ChoiceFact<T extends string>({
  options,
  ...common
}: Common & { options: readonly { value: T; label: ReactNode }[] }) {
  const { value, meta, conflict, mayWrite, set } = useFact(common.kind, common.id, common.field)
  return (
    <Frame common={common} inputId={null} meta={meta} conflict={conflict} problem={null}>
      <Chips
        label={common.label}
        value={value as T | undefined}
        options={options}
        disabled={!mayWrite}
        onChoose={(chosen) => set(chosen)}
      />
    </Frame>
  )
}

/** What was said of a yes or no; undefined where nobody has. */
export function yesOrNo(value: unknown): 'yes' | 'no' | undefined {
  if (value === undefined) return undefined
  return value ? 'yes' : 'no'
}

/** Yes or no; nothing is chosen while nobody has said. */
export function YesNoFact({ yes = 'Yes', no = 'No', ...common }: Common & { yes?: string; no?: string }) {
  const { value, meta, conflict, mayWrite, set } = useFact(common.kind, common.id, common.field)
  const chosen = yesOrNo(value)
  return (
    <Frame common={common} inputId={null} meta={meta} conflict={conflict} problem={null}>
      <Chips
        label={common.label}
        value={chosen}
        options={[
          { value: 'yes', label: yes },
          { value: 'no', label: no }
        ]}
        disabled={!mayWrite}
        onChoose={(answer) => set(answer === 'yes')}
      />
    </Frame>
  )
}

/** One of a list that may be long. */
export function SelectFact({
  options,
  none,
  ...common
}: Common & { options: readonly { value: string; label: string }[]; none: string }) {
  const { value, meta, conflict, mayWrite, set } = useFact(common.kind, common.id, common.field)
  const inputId = useId()
  return (
    <Frame common={common} inputId={inputId} meta={meta} conflict={conflict} problem={null}>
      <Select
        id={inputId}

        value={(value as string | undefined) ?? ''}
        disabled={!mayWrite}
        onChange={(event) => set(event.target.value === '' ? null : event.target.value)}
      >
        <option value="">{none}</option>
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </Select>
    </Frame>
  )
}

/** Several of a few. */
export function SeveralFact({ options, ...common }: Common & { options: readonly { value: string; label: string }[] }) {
  const { value, meta, conflict, mayWrite, set } = useFact(common.kind, common.id, common.field)
  const chosen = (value as string[] | undefined) ?? []
  return (
    <Frame common={common} inputId={null} meta={meta} conflict={conflict} problem={null}>
      <div role="group" aria-label={common.label} className="flex flex-wrap gap-2">
        {options.map((option) => {
          const on = chosen.includes(option.value)
          const next = options
            .map((choice) => choice.value)
            .filter((candidate) => (candidate === option.value ? !on : chosen.includes(candidate)))
          return (
            <button
              key={option.value}
              type="button"
              className="chip"
              aria-pressed={on}
              data-state={on ? 'on' : 'off'}
              disabled={!mayWrite}
              onClick={() => set(next.length ? next : null)}
            >
              {option.label}
            </button>
          )
        })}
      </div>
    </Frame>
  )
}
