import { textOf } from '@pasado/core/values/plain'
import { useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { useOutbox } from '../outbox/outbox'
import { countWords } from '../outbox/words'
import { failureTitle } from './api'
import { useSession } from './session'
import { Button } from '../ui/Button'
import { Input } from '../ui/Field'
import { Notice } from '../ui/Notice'

/** The log-in. */
export function LogIn() {
  const logIn = useSession((state) => state.logIn)
  const navigate = useNavigate()
  const [search] = useSearchParams()
  const [problem, setProblem] = useState<string | null>(null)
  const rows = useOutbox((state) => state.rows)
  const waiting = rows.filter(({ refused }) => refused === null)
  const left = [...new Set(waiting.flatMap(({ owner }) => owner?.name ?? []))].map((name) => ({
    name,
    rows: waiting.filter(({ owner }) => owner?.name === name)
  }))
  const [missing, setMissing] = useState<{ login?: string; password?: string }>({})
  const [busy, setBusy] = useState(false)
  const submit = async (event: React.FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const typed = new FormData(event.currentTarget)
    const [login, password] = [textOf(typed.get('login')).trim(), textOf(typed.get('password'))]
    const wanted = {
      ...(login ? {} : { login: 'Enter your login.' }),
      ...(password ? {} : { password: 'Enter your password.' })
    }
    setMissing(wanted)
    setProblem(null)
    if (Object.keys(wanted).length > 0) return
    setBusy(true)
    try {
      await logIn(login, password)
      const to = search.get('to') ?? '/'
      await navigate(/^\/(?![/\\])/.test(to) ? to : '/')
    } catch (error) {
      setProblem(failureTitle(error, 'The log-in did not go through; try again.'))
      setBusy(false)
    }
  }
  return (
    <main className="grid min-h-dvh lg:grid-cols-[1fr_1.2fr]">
      <div className="flex flex-col justify-center gap-6 p-6 sm:p-12">
        <h1 className="text-4xl">Pasado</h1>
        <form className="flex max-w-sm flex-col gap-4" onSubmit={(event) => void submit(event)} noValidate>
          <div>
            <label htmlFor="login" className="label">
              Login
            </label>
            <Input
              id="login"
              className="mt-1"
              autoComplete="username"
              autoCapitalize="none"
              spellCheck={false}
              autoFocus
              aria-invalid={missing.login !== undefined}
              aria-describedby={missing.login ? 'login-wrong' : undefined}
              name="login"
            />
            {missing.login && (
              <p id="login-wrong" className="mt-1 font-bold">
                {missing.login}
              </p>
            )}
          </div>
          <div>
            <label htmlFor="password" className="label">
              Password
            </label>
            <Input
              id="password"
              type="password"
              className="mt-1"
              autoComplete="current-password"
              aria-invalid={missing.password !== undefined}
              aria-describedby={missing.password ? 'password-wrong' : undefined}
              name="password"
            />
            {missing.password && (
              <p id="password-wrong" className="mt-1 font-bold">
                {missing.password}
              </p>
            )}
          </div>
          {left.map(({ name, rows: ones }) => (
            <Notice key={name} role="status" as="p" edge="plum">
              {countWords(ones).replace(/^./, (first) => first.toUpperCase())} of {name}{' '}
              {ones.length === 1 ? 'waits' : 'wait'} on this device, and {ones.length === 1 ? 'goes' : 'go'} when {name}{' '}
              logs in here.
            </Notice>
          ))}
          {problem && (
            <p role="alert" className="border-l-8 border-inv bg-well p-3 font-bold">
              {problem}
            </p>
          )}
          <Button type="submit" kind="main" disabled={busy}>
            Log in
          </Button>
        </form>
      </div>
      <div className="hidden items-center bg-band text-onband lg:flex" aria-hidden>
        <svg viewBox="0 0 600 320" className="w-full">
          <path
            d="M0 160H90C120 160 120 90 160 90S200 160 240 160H330C360 160 365 215 400 215S440 160 470 160H600"
            fill="none"
            stroke="currentColor"
            strokeWidth="5"
          />
          {[60, 240, 330, 520].map((x) => (
            <circle key={x} cx={x} cy="160" r="13" fill="var(--band)" stroke="currentColor" strokeWidth="5" />
          ))}
          <text x="60" y="200" fill="currentColor" fontSize="17" textAnchor="middle">
            street
          </text>
          <text x="520" y="200" fill="currentColor" fontSize="17" textAnchor="middle">
            last room
          </text>
        </svg>
      </div>
    </main>
  )
}
