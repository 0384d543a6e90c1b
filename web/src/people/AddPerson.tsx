import { useForm } from 'react-hook-form'
import { ApiProblem, ask, failureTitle } from '../app/api'
import type { Me } from '../app/session'
import { Sheet } from '../ui/Sheet'
import { roleWords, type Given } from './person'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { Input, Select } from '../ui/Field'

interface Fields {
  name: string
  login: string
  role: Me['role']
}
const fields = ['name', 'login', 'role'] as const

/** A login as it follows from a name, until somebody types another. */
const loginFrom = (name: string) =>
  (name.trim().split(/\s+/)[0] ?? '')
    .normalize('NFD')
    .toLowerCase()
    .replace(/[^a-z0-9.-]/g, '')

/** Somebody new: a name, a login, a role. */
export function AddPerson({
  open,
  onClose,
  onAdded
}: {
  open: boolean
  onClose: () => void
  onAdded: (given: Given) => void
}) {
  const {
    register,
    handleSubmit,
    reset,
    setError,
    setValue,
    formState: { errors, isSubmitting, dirtyFields }
  } = useForm<Fields>({ defaultValues: { name: '', login: '', role: 'technician' } })
  const submit = handleSubmit(async ({ name, login, role }) => {
    try {
      const { password } = await ask('POST /people', { body: { name, login, role } })
      reset()
      onAdded({ name, login, password })
    } catch (error) {
      const wrong =
        error instanceof ApiProblem
          ? (error.document.errors ?? []).filter(({ field }) => fields.includes(field as keyof Fields))
          : []
      for (const { field, detail } of wrong) setError(field as keyof Fields, { message: `It ${detail}.` })
      if (wrong.length === 0)
        setError('root', {
          message: failureTitle(error, 'The person could not be added; try again.')
        })
    }
  })
  const wrong = (name: keyof Fields) =>
    errors[name] && (
      <p id={`person-${name}-wrong`} role="alert" className="mt-1 font-bold">
        {errors[name].message}
      </p>
    )
  const told = (name: keyof Fields) => ({
    'aria-invalid': !!errors[name],
    'aria-describedby': errors[name] ? `person-${name}-wrong` : undefined
  })
  return (
    <Sheet
      open={open}
      onClose={onClose}
      title="Add a person"
      description="Pasado makes a password to begin with; the person replaces it at the first log-in."
    >
      <form className="flex flex-col gap-4" onSubmit={(event) => void submit(event)} noValidate>
        <div>
          <label className="label" htmlFor="person-name">
            Name
          </label>
          <Input
            id="person-name"
            className="mt-1"
            autoComplete="off"
            {...told('name')}
            {...register('name', {
              required: 'It is missing.',
              onChange: (event: { target: { value: string } }) => {
                if (!dirtyFields.login) setValue('login', loginFrom(event.target.value))
              }
            })}
          />
          {wrong('name')}
        </div>
        <div>
          <label className="label" htmlFor="person-login">
            Login
          </label>
          <Input
            id="person-login"
            exact
            className="mt-1"
            autoComplete="off"
            autoCapitalize="none"
            spellCheck={false}
            {...told('login')}
            {...register('login', { required: 'It is missing.' })}
          />
          {wrong('login')}
        </div>
        <div>
          <label className="label" htmlFor="person-role">
            Role
          </label>
          <Select id="person-role" className="mt-1" {...told('role')} {...register('role')}>
            {(Object.keys(roleWords) as Me['role'][]).map((roleWord) => (
              <option key={roleWord} value={roleWord}>
                {roleWords[roleWord]}
              </option>
            ))}
          </Select>
          <p className="fine mt-1">
            A technician commissions; a lead does so too, judges, and owns standard and catalogue; the office books and
            looks up.
          </p>
          {wrong('role')}
        </div>
        <Problem message={errors.root?.message} />
        <p>
          <Button type="submit" kind="main" disabled={isSubmitting}>
            Add
          </Button>
        </p>
      </form>
    </Sheet>
  )
}
