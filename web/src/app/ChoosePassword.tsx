import { useEffect, useState } from 'react'
import { useForm } from 'react-hook-form'
import type { Strength } from '@pasado/core/secrets/strength'
import { scoreWords } from '../ui/PassphraseJudged'
import { Sheet } from '../ui/Sheet'
import { strengthOf } from '../workers/strength'
import { ApiProblem, ask, failureTitle } from './api'
import { useSession } from './session'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { Input } from '../ui/Field'

interface Fields {
  current: string
  wanted: string
  again: string
}
const labels = { current: 'Password so far', wanted: 'New password', again: 'New password once more' } as const

const describedBy: Partial<Record<keyof Fields, string>> = { wanted: 'password-strength' }

/** Another password of one's own, judged as it is typed. */
export function ChoosePassword({ onDone }: { onDone: () => void }) {
  const me = useSession((state) => state.me)
  const {
    register,
    handleSubmit,
    watch,
    setError,
    formState: { errors, isSubmitting }
  } = useForm<Fields>({ defaultValues: { current: '', wanted: '', again: '' } })
  const [strength, setStrength] = useState<Strength | null>(null)
  const wanted = watch('wanted')
  useEffect(() => {
    let here = true
    setStrength(null)
    if (wanted)
      strengthOf(wanted, [me?.login ?? '', me?.name ?? '']).then(
        (found) => {
          if (here) setStrength(found)
        },
        // Told by the bar that tells what failed.
        () => undefined
      )
    return () => {
      here = false
    }
  }, [wanted, me])
  const submit = handleSubmit(async ({ current, wanted: chosen, again }) => {
    if (chosen !== again) {
      setError('again', { message: 'It is not the same as above; type both again.' })
      return
    }
    try {
      await ask('POST /session/password', { body: { current, wanted: chosen } })
      onDone()
    } catch (error) {
      const fields = error instanceof ApiProblem ? (error.document.errors ?? []) : []
      for (const { field, detail } of fields)
        if (field in labels) setError(field as keyof Fields, { message: `It ${detail}.` })
      if (fields.length === 0)
        setError('root', {
          message: failureTitle(error, 'It could not be changed; try again.')
        })
    }
  })
  const field = (name: keyof Fields, complete: string) => (
    <div>
      <label className="label" htmlFor={`password-${name}`}>
        {labels[name]}
      </label>
      <Input
        id={`password-${name}`}
        type="password"
        className="mt-1"
        autoComplete={complete}
        aria-invalid={!!errors[name]}
        aria-describedby={errors[name] ? `password-${name}-wrong` : describedBy[name]}
        {...register(name, { required: 'It is missing.' })}
      />
      <Problem id={`password-${name}-wrong`} message={errors[name] && errors[name].message} className="mt-1" />
    </div>
  )
  return (
    <form className="flex flex-col gap-4" onSubmit={(event) => void submit(event)} noValidate>
      {field('current', 'current-password')}
      <div>
        {field('wanted', 'new-password')}
        <p id="password-strength" className="fine mt-1" aria-live="polite">
          {strength ? (
            <>
              <b>
                {scoreWords[strength.score]}: {strength.score} of 4
              </b>
              ; 3 are wanted. {strength.warning}
            </>
          ) : (
            'At least ten characters. A few words that do not go together are easily kept in mind.'
          )}
        </p>
      </div>
      {field('again', 'new-password')}
      {errors.root && (
        <p role="alert" className="border-l-8 border-inv bg-well p-3 font-bold">
          {errors.root.message}
        </p>
      )}
      <p>
        <Button type="submit" kind="main" disabled={isSubmitting}>
          Change it
        </Button>
      </p>
    </form>
  )
}

/** The same, called up over whatever one was at. */
export function OwnPasswordSheet({ onClose }: { onClose: () => void }) {
  const [done, setDone] = useState(false)
  return (
    <Sheet
      open
      onClose={onClose}
      title="Change my password"
      description="Everywhere else where you are logged in you are logged out."
    >
      {done ? (
        <p role="status">
          Changed.{' '}
          <Button className="ml-2" onClick={onClose}>
            Good
          </Button>
        </p>
      ) : (
        <ChoosePassword onDone={() => setDone(true)} />
      )}
    </Sheet>
  )
}
