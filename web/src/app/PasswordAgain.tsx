import { useState } from 'react'
import { Sheet } from '../ui/Sheet'
import { typeAgain, usePasswordAgain } from './password-again'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { Input } from '../ui/Field'

/** The password once more, before further secrets are shown. */
export function PasswordAgain() {
  const asking = usePasswordAgain((state) => state.asking)
  const [password, setPassword] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  if (!asking) return null
  const submit = async (event: React.FormEvent) => {
    event.preventDefault()
    setBusy(true)
    const wrong = await typeAgain(password)
    setBusy(false)
    setPassword('')
    setProblem(wrong)
    if (!wrong) asking.end(true)
  }
  return (
    <Sheet
      open
      onClose={() => {
        setPassword('')
        setProblem(null)
        asking.end(false)
      }}
      title="Your password again"
      description={asking.message}
    >
      <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
        <label className="label" htmlFor="password-again">
          Password
        </label>
        <Input
          id="password-again"
          type="password"

          autoComplete="current-password"
          required
          value={password}
          aria-invalid={problem !== null}
          aria-describedby={problem ? 'password-again-wrong' : undefined}
          onChange={(event) => {
            setPassword(event.target.value)
            setProblem(null)
          }}
        />
        <Problem id="password-again-wrong" message={problem} />
        <Button type="submit" kind="main" disabled={busy}>
          Go on
        </Button>
      </form>
    </Sheet>
  )
}
