import { format } from 'date-fns'
import { useEffect, useState } from 'react'
import { useForm } from 'react-hook-form'
import { useNavigate, useSearchParams } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { countryChoices } from '@pasado/core/radio/permissions'
import { reasons } from '@pasado/core/record/brief'
import { ApiProblem, ask } from '../app/api'
import { keepCountry, lastCountry } from '../app/country'
import { draftOf } from '../app/draft'
import { useSession } from '../app/session'
import { reasonWords } from '../visit/frame/reason-words'
import { localTime } from '../app/local-time'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { useRead } from '../app/read'
import { Heading, Page } from '../ui/Page'
import { Select, Input } from '../ui/Field'

interface Fields {
  customerName: string
  street: string
  town: string
  phone: string
  reason: (typeof reasons)[number]
  date: string
  time: string
  technician: string
  country: string
}

const mostCharacters: Record<keyof Fields, number> = {
  customerName: 120,
  street: 120,
  town: 80,
  phone: 40,
  reason: 120,
  date: 120,
  time: 120,
  technician: 120,
  country: 2
}

/** What has to be known before a visit is opened: who may go, and the home where one was chosen. */
function useKnownBefore(homeId: string | null) {
  // What is typed is built upon what these were: they are read but once.
  const known = useRead('GET /homes/:id', { params: { id: homeId ?? '' } }, { when: homeId !== null, once: true })
  const people = useRead('GET /technicians', {}, { once: true })
  let unread: string | null = null
  if (people.problem !== null) unread = 'The technicians could not be loaded; load the page again.'
  if (known.problem !== null) unread = 'This home is not known; open the visit from the list of homes.'
  const awaited = homeId === null ? [people] : [people, known]
  return {
    home: known.value?.home ?? null,
    /** Whether a visit was sealed there: the new one starts from it. */
    sealed: known.value !== undefined && known.value.now !== null,
    technicians: people.value?.technicians ?? [],
    /** Who goes is one of a list that may be on its way: until it is there nothing is sent, rather than refused. */
    isLoading: awaited.some(({ value, problem }) => value === undefined && problem === null),
    unread
  }
}

/** A new visit: at a home that is known, or a new customer and home. */
export function NewVisit() {
  const me = useSession((state) => state.me)
  const [search] = useSearchParams()
  const homeId = search.get('home')
  const { home, sealed, technicians, isLoading, unread } = useKnownBefore(homeId)
  const [refused, setProblem] = useState<string | null>(null)
  const problem = refused ?? unread
  // The ids are fixed when the form is opened: sent twice, it opens one visit.
  const [ids] = useState(() => ({ visit: uuidv7(), home: uuidv7(), customer: uuidv7() }))
  const navigate = useNavigate()
  const draftKey = `new visit ${homeId ?? ''}`
  const {
    register,
    handleSubmit,
    reset,
    setError,
    watch,
    formState: { errors, isSubmitting }
  } = useForm<Fields>({
    defaultValues: {
      customerName: '',
      street: '',
      town: '',
      phone: '',
      reason: 'new',
      date: format(new Date(), 'yyyy-MM-dd'),
      time: format(new Date(), 'HH:mm'),
      technician: me?.id ?? '',
      country: lastCountry(),
      ...draftOf.read<Partial<Fields>>(draftKey, {})
    }
  })
  useEffect(() => {
    const watching = watch((typed) => draftOf.keep(draftKey, typed, {}))
    return () => watching.unsubscribe()
  }, [watch, draftKey])
  useEffect(() => {
    if (home)
      reset((before) => ({
        ...before,
        customerName: home.customer,
        street: home.street,
        town: home.town,
        reason: draftOf.read<Partial<Fields>>(draftKey, {}).reason ?? 'fault'
      }))
  }, [home, reset, draftKey])
  const submit = handleSubmit(async (fields) => {
    setProblem(null)
    const { technician, date, time, phone, country, ...brief } = fields
    const plannedAt = date && time ? localTime(new Date(`${date}T${time}`)) : undefined
    try {
      await ask('POST /visits', {
        body: {
          id: ids.visit,
          home: home?.id ?? ids.home,
          customer: home?.customerId ?? ids.customer,
          technician,
          brief: {
            ...brief,
            ...(phone.trim() ? { phone } : {}),
            ...(plannedAt ? { plannedAt } : {}),
            ...(country ? { country } : {})
          }
        }
      })
      draftOf.keep(draftKey, {}, {})
      keepCountry(country)
      await navigate(`/visit/${ids.visit}/brief`)
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      for (const problem of error.document.errors ?? []) {
        const field = problem.pointer.split('/').at(-1) as keyof Fields
        if (field in fields) setError(field, { message: problem.detail })
      }
      setProblem(error.words)
    }
  })
  const text = (field: 'customerName' | 'street' | 'town' | 'phone', label: string, needed: string | false) => (
    <div>
      <label className="label" htmlFor={field}>
        {label}
      </label>
      <input
        id={field}
        className={`box mt-1 ${field === 'phone' ? 'exact' : ''}`}
        autoComplete="off"
        readOnly={home !== null && field !== 'phone'}
        aria-invalid={!!errors[field]}
        aria-describedby={errors[field] ? `${field}-wrong` : undefined}
        {...register(field, {
          ...(needed ? { validate: (value: string) => value.trim() !== '' || needed } : {}),
          maxLength: { value: mostCharacters[field], message: 'is too long' }
        })}
      />
      <Problem id={`${field}-wrong`} message={errors[field] && errors[field].message} className="mt-1" />
    </div>
  )
  return (
    <Page title="New visit" width="form">
      <Heading>{home ? `New visit at ${home.street}` : 'New customer, home and visit'}</Heading>
      {home && (
        <p className="mt-1 text-soft">
          {sealed
            ? 'It starts from the last sealed visit: units, ranges and networks are taken over, and those of its secrets that are still kept.'
            : 'No visit was sealed here yet: nothing is taken over.'}
        </p>
      )}
      <form className="paper mt-4 grid gap-4 p-4 sm:grid-cols-2" onSubmit={(event) => void submit(event)} noValidate>
        {text('customerName', 'Customer', 'Enter the customer’s name.')}
        {text('phone', 'Telephone', false)}
        {text('street', 'Street', 'Enter the street and number.')}
        {text('town', 'Town or island', 'Enter the town or island.')}
        {!sealed && (
          <div>
            <label className="label" htmlFor="country">
              Country
            </label>
            <Select
              id="country"
              className="mt-1"
              aria-invalid={!!errors.country}
              aria-describedby={errors.country ? 'country-wrong' : undefined}
              {...register('country', { required: 'Choose the country: it says which channels are permitted.' })}
            >
              <option value="">not chosen</option>
              {countryChoices().map(({ value, label }) => (
                <option key={value} value={value}>
                  {label}
                </option>
              ))}
            </Select>
            <Problem id="country-wrong" message={errors.country?.message} className="mt-1" />
          </div>
        )}
        <div>
          <label className="label" htmlFor="reason">
            Why
          </label>
          <Select id="reason" className="mt-1" {...register('reason')}>
            {reasons.map((value) => (
              <option key={value} value={value}>
                {reasonWords[value]}
              </option>
            ))}
          </Select>
        </div>
        <div>
          <label className="label" htmlFor="technician">
            Technician
          </label>
          <Select
            id="technician"
            className="mt-1"
            aria-invalid={!!errors.technician}
            {...register('technician', { required: 'Choose who goes.' })}
            key={technicians.length}
          >
            {technicians.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
          <Problem message={errors.technician?.message} className="mt-1" />
        </div>
        <div>
          <label className="label" htmlFor="date">
            Day
          </label>
          <Input id="date" type="date" className="mt-1" {...register('date')} />
        </div>
        <div>
          <label className="label" htmlFor="time">
            Time
          </label>
          <Input id="time" type="time" className="mt-1" {...register('time')} />
        </div>
        {problem && (
          <p role="alert" className="border-l-8 border-inv bg-well p-3 font-bold sm:col-span-2">
            {problem}
          </p>
        )}
        <p className="sm:col-span-2">
          <Button type="submit" kind="main" disabled={isSubmitting || isLoading}>
            Open the visit
          </Button>
        </p>
      </form>
    </Page>
  )
}
