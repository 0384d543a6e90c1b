import { useEffect, useId, useRef, useState } from 'react'
import { revealReasons, type RevealReason, type SecretPurpose } from '@pasado/core/record/answers'
import { preparedSecret, secretFor } from '@pasado/core/record/record'
import type { Strength } from '@pasado/core/secrets/strength'
import { ApiProblem, failureTitle } from '../../app/api'
import { useOutbox, type OutboxRow } from '../../outbox/outbox'
import { useMayWrite } from '../session/facts'
import { placeKey } from '../session/place'
import { keepSecret, newPassphrase, newRef, secretProblem, showSecret } from '../session/secrets'
import { useVisit } from '../session/visit-state'
import { PassphraseJudged, scoreWords } from '../../ui/PassphraseJudged'
import { strengthOf } from '../../workers/strength'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { Input } from '../../ui/Field'

const SHOWN_MS = 45_000

/** Groups of four, so that a long value can be read aloud and compared. */
function Spelled({ value }: { value: string }) {
  const kinds = [...value].map((character) => {
    if (/\d/.test(character)) return 'digit'
    return /[A-Z]/.test(character) ? 'capital' : 'other'
  })
  return (
    <span className="exact break-all text-lg">
      {[...value].map((character, index) => (
        <span key={index} className={kinds[index] === 'digit' ? 'underline decoration-dotted underline-offset-4' : ''}>
          {character}
        </span>
      ))}
    </span>
  )
}

/** How strong what is in the box is, told while it is typed; judged in a worker on this device. */
function Strong({ value }: { value: string }) {
  const facts = useVisit((state) => state.record.brief.facts)
  const networks = useVisit((state) => state.record.networks)
  const [strength, setStrength] = useState<Strength | null>(null)
  useEffect(() => {
    let left = false
    const hints = [
      facts.customerName,
      facts.street,
      ...Object.values(networks).map((network) => network.facts.ssid)
    ].filter((hint): hint is string => hint !== undefined)
    if (value)
      strengthOf(value, hints).then(
        (found) => {
          if (!left) setStrength(found)
        },
        // Told by the bar that tells what failed.
        () => undefined
      )
    return () => {
      left = true
    }
  }, [value, facts, networks])
  return (
    <div className="mt-1" aria-live="polite">
      {value && strength ? (
        <PassphraseJudged value={value} strength={strength} />
      ) : (
        <p className="fine">Strength is told as you type.</p>
      )}
    </div>
  )
}

/** Where a secret of this purpose is typed from: the label, or what the technician chose. */
const typedFrom = (purpose: SecretPurpose) =>
  purpose.startsWith('label') || purpose === 'setup-code' ? 'label' : 'typed'

interface SecretOf {
  purpose: SecretPurpose
  thing: 'brief' | 'unit' | 'network'
  id: string
  label: string
  canMake?: boolean
  wep?: boolean
  /** Whether it is to be typed in later, and on no air until then. */
  prepared?: boolean
}

/** A secret: typed or made, then only in the vault; shown on request, each showing logged. */
export function SecretFact({ place, stage, ...its }: SecretOf & { place?: string; stage?: 'kit' | 'configure' }) {
  const { purpose, id } = its
  const [typing, setTyping] = useState<Typing | null>(null)
  return (
    <div data-place={place ?? placeKey({ kind: 'secret', id, field: purpose })} data-stage={stage}>
      {typing ? (
        <TypedSecret {...its} first={typing} onDone={() => setTyping(null)} />
      ) : (
        <SecretState {...its} onType={setTyping} />
      )}
    </div>
  )
}

/** What a secret is begun with: made by the program, or empty to be typed. */
interface Typing {
  text: string
  made: boolean
}

/** A secret while it is typed or made; it leaves this box for the vault only. */
function TypedSecret({
  purpose,
  thing,
  id,
  label,
  canMake = false,
  wep = false,
  prepared = false,
  first,
  onDone
}: SecretOf & { first: Typing; onDone: () => void }) {
  const [{ text: value, made }, setTyped] = useState(first)
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const ref = useRef(newRef())
  const inputId = useId()
  const type = (typed: Typing) => {
    setTyped(typed)
    setProblem(null)
  }
  const makeAnother = () => {
    type({ text: newPassphrase(), made: true })
    ref.current = newRef()
  }
  const submit = async (event: React.FormEvent) => {
    event.preventDefault()
    const wrong = secretProblem(purpose, value, wep)
    if (wrong) {
      setProblem(wrong)
      return
    }
    setBusy(true)
    try {
      await keepSecret({ purpose, thing, id }, value, made ? 'made' : typedFrom(purpose), {
        wep,
        ref: ref.current,
        prepared
      })
      onDone()
    } catch (error) {
      setProblem(
        error instanceof ApiProblem
          ? (error.document.errors?.[0]?.detail ??
              `could not be saved: ${error.document.title} It is kept in this box; save it again.`)
          : 'could not be saved; save it again.'
      )
    } finally {
      setBusy(false)
    }
  }
  return (
    <form onSubmit={(event) => void submit(event)}>
      <label className="label" htmlFor={inputId}>
        {label}
      </label>
      <Input
        id={inputId}
        exact
        className="mt-1"
        value={value}
        autoFocus
        autoComplete="off"
        autoCapitalize="none"
        spellCheck={false}
        data-secret
        aria-invalid={problem !== null}
        aria-describedby={problem ? `${inputId}-wrong` : undefined}
        onChange={(event) => type({ text: event.target.value, made: false })}
      />
      <Problem id={`${inputId}-wrong`} message={problem && `${label} ${problem}`} className="mt-1" />
      {canMake && <Strong value={value} />}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button type="submit" kind="main" disabled={busy}>
          Put into the vault
        </Button>
        {canMake && <Button onClick={makeAnother}>Make another</Button>}
        <Button kind="quiet" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </form>
  )
}

/** Whether a secret is in the vault, on its way there, or not yet. */
function SecretState({
  purpose,
  id,
  label,
  canMake = false,
  prepared = false,
  onType
}: SecretOf & { onType: (first: Typing) => void }) {
  const secret = useVisit((state) => (prepared ? preparedSecret : secretFor)(state.record, purpose, id))
  const erased = useVisit((state) => state.record.secretsErased) || secret?.erasedAt !== undefined
  const visit = useVisit((state) => state.id)
  const boxed = useOutbox((state) => state.rows).find(
    ({ visit: of, item }) =>
      of === visit && item.kind === 'secret' && item.body.purpose === purpose && item.body.id === id && !prepared
  )
  const mayWrite = useMayWrite()
  return (
    <div role="group" aria-label={label}>
      <p className="flex flex-wrap items-baseline justify-between gap-x-2">
        <span className="label">{label}</span>
        {secret && canMake && (
          <span className="fine">
            {scoreWords[secret.assessed.score]}: {secret.assessed.score} of 4, about {Math.round(secret.assessed.bits)}{' '}
            bits
          </span>
        )}
      </p>
      {secret && erased && <p className="mt-1 text-soft">erased</p>}
      {secret && !erased && <Kept key={secret.ref} secretRef={secret.ref} label={label} />}
      {!secret && boxed && <Boxed row={boxed} />}
      {!secret && !boxed && <p className="mt-1 text-soft">Not in the vault yet.</p>}
      {mayWrite && (
        <div className="mt-2 flex flex-wrap gap-2">
          {canMake && (
            <Button aria-label={`Make one: ${label}`} onClick={() => onType({ text: newPassphrase(), made: true })}>
              Make one
            </Button>
          )}
          <Button aria-label={`Type one: ${label}`} onClick={() => onType({ text: '', made: false })}>
            {secret ? 'Type another' : 'Type one'}
          </Button>
        </div>
      )}
    </div>
  )
}

/** A secret that is kept: dots until somebody asks for it with a reason; hidden again after a while. */
function Kept({ secretRef, label }: { secretRef: string; label: string }) {
  const [value, setValue] = useState<string | null>(null)
  const [asking, setAsking] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const show = async (why: RevealReason) => {
    setAsking(false)
    try {
      setValue(await showSecret(secretRef, why))
      setTimeout(() => setValue(null), SHOWN_MS)
    } catch (error) {
      setProblem(failureTitle(error, 'It cannot be shown just now.'))
    }
  }
  if (value !== null)
    return (
      <p className="mt-1 flex items-center gap-2 bg-well px-3 py-2" data-secret>
        <span className="grow">
          <Spelled value={value} />
        </span>
        <button type="button" className="min-h-11 underline" onClick={() => setValue(null)}>
          Hide
        </button>
      </p>
    )
  return (
    <div className="mt-1 bg-well px-3 py-1">
      <p className="flex items-center gap-2">
        <span className="exact min-w-0 grow overflow-hidden whitespace-nowrap text-lg" aria-label="hidden">
          ••••••••••
        </span>
        <button
          type="button"
          className="min-h-11 shrink-0 underline underline-offset-2"
          aria-expanded={asking}
          aria-label={`Show: ${label}`}
          onClick={() => setAsking(!asking)}
        >
          Show
        </button>
      </p>
      {asking && (
        <div role="group" aria-label="Why do you need it? It is logged." className="pb-2">
          <p className="fine">Why do you need it? It is logged.</p>
          <div className="mt-1 flex flex-wrap gap-2">
            {revealReasons.map((why) => (
              <button key={why} type="button" className="chip" onClick={() => void show(why)}>
                {why}
              </button>
            ))}
          </div>
        </div>
      )}
      {problem && (
        <p role="alert" className="pb-2 font-bold">
          {problem}
        </p>
      )}
    </div>
  )
}

/** Where a secret is that the vault has not got yet. */
function Boxed({ row: { key, refused } }: { row: OutboxRow }) {
  const isWritten = useOutbox(({ unwritten }) => !unwritten.has(key))
  if (refused !== null)
    return (
      <p className="mt-1 text-soft">
        <b role="alert">Not taken: {refused}</b>
      </p>
    )
  return (
    <p className="mt-1 text-soft">
      {isWritten
        ? 'Sealed on this device, on its way to the vault.'
        : 'On its way to the vault: stay on this page until it is there.'}
    </p>
  )
}
